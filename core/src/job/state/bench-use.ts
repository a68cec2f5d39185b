import { isSameName } from '../../model/names/index.ts';
import { airing } from '../../physics/solvent/index.ts';
import type { JobState } from './job-state.ts';
import { type BenchUse, type Drops, IDLE, ONLY_BENCH, type Surroundings } from './surroundings.ts';

/** The name under which a bench is known already, however it is written; its own where it is not. */
export function knownBench(known: ReadonlyMap<string, unknown>, bench: string): string {
  return known.has(bench) ? bench : ([...known.keys()].find((each) => isSameName(each, bench)) ?? bench);
}

/** What a job does at each bench that it uses: for the other repairs there. */
export function benchUses({ opening, job, finished, ended }: JobState): ReadonlyMap<string, BenchUse> {
  const { heating, solvent, airedAt } = opening;
  const isOver = finished !== null || ended !== null;
  const uses = new Map<string, BenchUse>();
  const put = (bench: string, use: Partial<BenchUse>) => {
    const name = knownBench(uses, bench);
    uses.set(name, { ...(uses.get(name) ?? IDLE), ...use });
  };
  // a repair that is over has no source on, whatever an earlier version let it leave open
  if (heating && !isOver) put(heating.bench, { sourceOn: job.title });
  for (const [bench, drops] of solvent) put(bench, { drops });
  for (const [bench, when] of airedAt) put(bench, { airedAt: when });
  return uses;
}

/** Several repairs at one bench as one: any source, all drops since whoever aired it last. */
export function allUses(uses: readonly BenchUse[]): BenchUse {
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

/** What hinders heat or solvent at a bench: what goes on there, and what is on the device that comes to it. */
export function useAt(state: JobState, bench = ONLY_BENCH, around: Surroundings): BenchUse {
  const uses = benchUses(state);
  const here = allUses([uses.get(knownBench(uses, bench)) ?? IDLE, around.othersAt(bench)]);
  const own = ofDevice(state, around);
  // what lies at this bench is counted there already
  const brought = own.drops.filter((each) => !here.drops.includes(each));
  return { ...here, sourceOn: here.sourceOn ?? own.sourceOn, drops: [...here.drops, ...brought] };
}

/** What a device takes along to any bench: the source that is on it, and what is wet of it since it was aired anywhere. */
function ofDevice({ opening, job }: JobState, around: Surroundings): Pick<BenchUse, 'sourceOn' | 'drops'> {
  const lastAired = Math.max(-Infinity, ...[...opening.airedAt.values()].map((at) => Date.parse(at)));
  return {
    sourceOn: opening.heating ? job.title : null,
    drops: [...opening.solvent].flatMap(([bench, drops]) => {
      // the bench may have been aired by another repair there
      const { airedAt } = around.othersAt(bench);
      const aired = Math.max(lastAired, airedAt === null ? -Infinity : Date.parse(airedAt));
      return drops.filter(({ at }) => Date.parse(at) > aired);
    }),
  };
}

/** How long a bench still has to be aired at a moment before anything is heated there, seconds; 0 where it is clear. */
export function airingLeft_s({ drops }: BenchUse, limits: JobState['limits'], now: number): number {
  if (drops.length === 0) return 0;
  const { seconds } = airing(dropCount(drops), limits);
  // what is dated in the future is now: no clock that was wrong for a moment asks for more than a whole airing
  const last = drops.reduce((latest, each) => Math.max(latest, Math.min(now, Date.parse(each.at))), -Infinity);
  return Math.max(0, seconds - (now - last) / 1000);
}

/** All of them. */
export function dropCount(drops: readonly Drops[]): number {
  return drops.reduce((sum, each) => sum + each.drops, 0);
}
