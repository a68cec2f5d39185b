import { type BenchUse, allUses } from '@nibrel/core/job/state';
import { nameKey } from '@nibrel/core/model/names';

interface Bench {
  /** as it was told first */
  readonly name: string;
  readonly uses: Map<string, BenchUse>;
}

/** What all repairs do at each bench: a source that is on and solvent in the air count for everybody there. */
export class Benches {
  readonly #benches = new Map<string, Bench>();

  /** What a job does now, in place of what it did before. */
  set(job: string, uses: readonly (readonly [string, BenchUse])[]): void {
    for (const { uses: at } of this.#benches.values()) at.delete(job);
    for (const [name, use] of uses) {
      const key = nameKey(name);
      const bench = this.#benches.get(key) ?? { name, uses: new Map<string, BenchUse>() };
      bench.uses.set(job, use);
      this.#benches.set(key, bench);
    }
  }

  /**
   * What goes on at a bench beside a job. What is dated in the future was dated by a clock that was wrong: it counts from
   * now on, so that it is over some day.
   * @param now milliseconds since 1970
   */
  others(job: string, name: string, now: number): BenchUse {
    const bench = this.#benches.get(nameKey(name));
    if (!bench) return allUses([]);
    for (const [each, use] of bench.uses) bench.uses.set(each, until(use, now));
    return allUses([...bench.uses].flatMap(([each, use]) => (each === job ? [] : [use])));
  }

  /** Every bench where a source is on or solvent was not aired. */
  all(): { bench: string; use: BenchUse }[] {
    return [...this.#benches.values()].flatMap(({ name, uses }) => {
      const use = allUses([...uses.values()]);
      return use.sourceOn !== null || use.drops.length > 0 ? [{ bench: name, use }] : [];
    });
  }
}

function until(use: BenchUse, now: number): BenchUse {
  const isAhead = (at: string) => Date.parse(at) > now;
  if (!use.drops.some(({ at }) => isAhead(at)) && !(use.airedAt && isAhead(use.airedAt))) return use;
  const at = new Date(now).toISOString();
  return {
    ...use,
    drops: use.drops.map((each) => (isAhead(each.at) ? { ...each, at } : each)),
    airedAt: use.airedAt && isAhead(use.airedAt) ? at : use.airedAt,
  };
}
