import { type BenchUse, together } from '@nibrel/core/job';

/** What all repairs do at each bench: a source that is on and solvent in the air count for everybody there. */
export class Benches {
  readonly #byBench = new Map<string, Map<string, BenchUse>>();

  /** What a job does now, in place of what it did before. */
  set(job: string, uses: readonly (readonly [string, BenchUse])[]): void {
    for (const at of this.#byBench.values()) at.delete(job);
    for (const [bench, use] of uses) {
      const at = this.#byBench.get(bench) ?? new Map<string, BenchUse>();
      this.#byBench.set(bench, at.set(job, use));
    }
  }

  /** What goes on at a bench beside a job. */
  others(job: string, bench: string): BenchUse {
    return together([...(this.#byBench.get(bench) ?? [])].flatMap(([each, use]) => (each === job ? [] : [use])));
  }

  /** Every bench where a source is on or solvent was not aired. */
  all(): { bench: string; use: BenchUse }[] {
    return [...this.#byBench].flatMap(([bench, at]) => {
      const use = together([...at.values()]);
      return use.sourceOn !== null || use.drops.length > 0 ? [{ bench, use }] : [];
    });
  }
}
