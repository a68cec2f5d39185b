import type { FailedTest, SuspectCost } from './failed.ts';

/** A suspect with all that failed and that it would explain. */
export interface SharedSuspect extends SuspectCost {
  readonly explains: readonly string[];
}

/** All that failed with one list of what may be the cause. */
export interface FailedTogether {
  readonly functions: readonly string[];
  readonly suspects: readonly SharedSuspect[];
  /** what is pressed home, or looked at, while it is open, so that every failure has one of its causes looked at */
  readonly again: readonly SharedSuspect[];
}

/** One cause may explain several failures: they share a list, what explains most of them first, then the likeliest. */
export function failedTogether(failed: readonly FailedTest[]): FailedTogether {
  const suspects = new Map<string, SharedSuspect>();
  for (const each of failed) {
    for (const suspect of each.suspects) {
      const key = suspect.joint ?? suspect.part!;
      const explains = [...(suspects.get(key)?.explains ?? []), each.function];
      suspects.set(key, { ...suspect, explains });
    }
  }
  const listed = [...suspects.values()].toSorted((a, b) => b.p * b.explains.length - a.p * a.explains.length);
  const left = new Set(failed.filter((each) => each.suspects.length > 0).map((each) => each.function));
  const again: SharedSuspect[] = [];
  // a plug is pressed in a moment: that comes before a part is taken off
  for (const suspect of listed.toSorted((a, b) => Number(a.joint === undefined) - Number(b.joint === undefined))) {
    if (!suspect.explains.some((id) => left.has(id))) continue;
    again.push(suspect);
    suspect.explains.forEach((id) => left.delete(id));
  }
  return { functions: failed.map((each) => each.function), suspects: listed, again };
}
