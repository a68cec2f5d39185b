import { foreseen } from '@nibrel/core/model/battery';
import { useEffect, useRef, useState } from 'react';

interface MeterReading {
  readonly at_s: number;
  readonly charge: number;
  readonly watts: number;
}

/** How many times faster than a real battery the stand-in falls. */
const PACE = 300;

/** Listens to the power meter's stand-in; the alarm follows its readings, not the clock. */
export function usePowerMeter(onReached: (charge: number) => void, target: number) {
  const [readings, setReadings] = useState<readonly MeterReading[]>([]);
  const source = useRef<EventSource | null>(null);
  const reached = useRef(onReached);
  useEffect(() => {
    reached.current = onReached;
  });
  useEffect(() => () => source.current?.close(), []);

  const start = (settings: { charge: number; energy_Wh: number; load_W: number }) => {
    const query = new URLSearchParams({
      ...Object.fromEntries(Object.entries(settings).map(([k, v]) => [k, String(v)])),
      pace: String(PACE),
    });
    const meter = new EventSource(`/api/v1/stand-ins/power-meter?${query}`);
    source.current?.close();
    source.current = meter;
    meter.addEventListener('message', (message: MessageEvent<string>) => {
      const reading = JSON.parse(message.data) as MeterReading;
      setReadings((before) => [...before.slice(-400), reading]);
      if (reading.charge > target) return;
      meter.close();
      reached.current(reading.charge);
    });
  };
  return { start, last: readings.at(-1) ?? null, left_s: foreseen(readings, target) };
}
