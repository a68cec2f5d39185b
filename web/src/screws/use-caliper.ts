import { useReadings } from '../app/use-readings.ts';

/** A screw as the caliper shows it. */
interface CaliperReading {
  readonly screw: number;
  readonly length_mm: number;
  readonly drive: string;
  readonly isLast: boolean;
}

interface LaidIn {
  readonly length_mm: number;
  readonly drive: string;
}

const CALIPER = { route: 'caliper', name: 'The caliper', cure: 'Type the lengths in.' };

/** Listens to the caliper's stand-in while screws are laid into it. */
export function useCaliper(onReading: (reading: CaliperReading) => void) {
  const { start, ...caliper } = useReadings(CALIPER, onReading);
  return {
    ...caliper,
    start: (screws: readonly LaidIn[], { spilled, seed }: { readonly spilled: boolean; readonly seed: number }) =>
      start({
        screws: screws.map(({ length_mm, drive }) => `${Math.round(length_mm * 1000) / 1000}:${drive}`).join(','),
        spilled: String(spilled),
        seed: String(seed),
      }),
  };
}
