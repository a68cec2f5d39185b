import { useEffect, useRef, useState } from 'react';

/** What every reading of an instrument says beside its figures. */
interface Last {
  readonly isLast: boolean;
}

/**
 * Listens to an instrument's stand-in until its last reading.
 * @param instrument its route under `/stand-ins`, and what it is called where it does not answer
 */
export function useReadings<Reading extends Last>(
  instrument: { readonly route: string; readonly name: string; readonly cure: string },
  onReading: (reading: Reading) => void,
) {
  const source = useRef<EventSource | null>(null);
  const [isOn, setOn] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const heard = useRef(onReading);
  useEffect(() => {
    heard.current = onReading;
  });
  useEffect(() => () => source.current?.close(), []);
  const { route, name, cure } = instrument;

  const start = (settings: Readonly<Record<string, string>>) => {
    source.current?.close();
    const readings = new EventSource(`/api/v1/stand-ins/${route}?${new URLSearchParams(settings).toString()}`);
    source.current = readings;
    setOn(true);
    setProblem(null);
    const stop = () => {
      readings.close();
      setOn(false);
    };
    readings.addEventListener('message', (message: MessageEvent<string>) => {
      const reading = JSON.parse(message.data) as Reading;
      heard.current(reading);
      if (reading.isLast) stop();
    });
    readings.addEventListener('error', () => {
      stop();
      setProblem(`${name} does not answer. ${cure}`);
    });
  };
  return { start, isOn, problem };
}
