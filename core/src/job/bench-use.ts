import { airing } from '../solvent/index.ts';
import type { JobState } from './state.ts';
import { type BenchUse, type Drops, IDLE, ONLY_BENCH, type Surroundings } from './surroundings.ts';

/** What a job does at each bench that it uses: for the other repairs there, and for itself. */
export function benchUses({ opening, job, finished, ended }: JobState): ReadonlyMap<string, BenchUse> {
  const { heating, solvent, airedAt } = opening;
  const isOver = finished !== null || ended !== null;
  const uses = new Map<string, BenchUse>();
  const at = (bench: string) => uses.get(bench) ?? IDLE;
  // a repair that is over has no source on, whatever an earlier version let it leave open
  if (heating && !isOver) uses.set(heating.bench, { ...at(heating.bench), sourceOn: job.title });
  for (const [bench, drops] of solvent) uses.set(bench, { ...at(bench), drops });
  for (const [bench, when] of airedAt) uses.set(bench, { ...at(bench), airedAt: when });
  return uses;
}

/** Several repairs at one bench as one: any source, all drops since whoever aired it last. */
export function together(uses: readonly BenchUse[]): BenchUse {
  const airedAt = uses.reduce<string | null>((last, each) => later(last, each.airedAt), null);
  return {
    sourceOn: uses.find((each) => each.sourceOn !== null)?.sourceOn ?? null,
    drops: uses.flatMap(({ drops }) =>
      drops.filter(({ at }) => airedAt === null || Date.parse(at) > Date.parse(airedAt)),
    ),
    airedAt,
  };
}

function later(a: string | null, b: string | null): string | null {
  if (a === null || b === null) return a ?? b;
  return Date.parse(a) >= Date.parse(b) ? a : b;
}

/** What goes on at a bench, this job's part and that of all others. */
export function useAt(state: JobState, bench = ONLY_BENCH, around: Surroundings): BenchUse {
  return together([benchUses(state).get(bench) ?? IDLE, around.othersAt(bench)]);
}

/** How long a bench still has to be aired at a moment before anything is heated there, seconds; 0 where it is clear. */
export function airingLeft_s({ drops }: BenchUse, limits: JobState['limits'], now: number): number {
  if (drops.length === 0) return 0;
  const { seconds } = airing(dropCount(drops), limits);
  const last = drops.reduce((latest, each) => Math.max(latest, Date.parse(each.at)), -Infinity);
  return Math.max(0, seconds - (now - last) / 1000);
}

/** All together. */
export function dropCount(drops: readonly Drops[]): number {
  return drops.reduce((sum, each) => sum + each.drops, 0);
}
