import { useEffect, useRef, useState } from 'react';

/** A screw as the caliper shows it. */
export interface CaliperReading {
  readonly screw: number;
  readonly length_mm: number;
  readonly drive: string;
  readonly isLast: boolean;
  readonly simulated: true;
}

interface LaidIn {
  readonly length_mm: number;
  readonly drive: string;
}

/** Listens to the caliper's stand-in while screws are laid into it. */
export function useCaliper(onReading: (reading: CaliperReading) => void) {
  const source = useRef<EventSource | null>(null);
  const [isOn, setOn] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const heard = useRef(onReading);
  useEffect(() => {
    heard.current = onReading;
  });
  useEffect(() => () => source.current?.close(), []);

  const start = (
    screws: readonly LaidIn[],
    { spilled, seed }: { readonly spilled: boolean; readonly seed: number },
  ) => {
    const query = new URLSearchParams({
      screws: screws.map(({ length_mm, drive }) => `${Math.round(length_mm * 1000) / 1000}:${drive}`).join(','),
      spilled: String(spilled),
      seed: String(seed),
    });
    source.current?.close();
    const caliper = new EventSource(`/api/v1/stand-ins/caliper?${query}`);
    source.current = caliper;
    setOn(true);
    setProblem(null);
    const stop = () => {
      caliper.close();
      setOn(false);
    };
    caliper.addEventListener('message', (message: MessageEvent<string>) => {
      const reading = JSON.parse(message.data) as CaliperReading;
      heard.current(reading);
      if (reading.isLast) stop();
    });
    caliper.addEventListener('error', () => {
      stop();
      setProblem('The caliper does not answer. Type the lengths in.');
    });
  };
  return { start, isOn, problem };
}
