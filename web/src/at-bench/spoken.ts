import { aloud, type Question } from '@nibrel/core/asking/question';
import { clicks } from '@nibrel/core/bench/in-hand';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap, Face } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { plural } from '@nibrel/core/planner/words';
import { counts } from '@nibrel/core/screws/screws';

/** What is asked and the count aloud; of a plug its name only, since its click is listened for. */
export function spokenOf(map: DeviceMap, { ledger }: JobState, question: Question, op: Op | undefined): string {
  if (op && clicks(map, op)) return question.title;
  const { onMat } = counts(ledger);
  const mat = op?.name === 'count' ? ` ${plural(onMat, 'screw')} on the mat.` : '';
  return `${aloud(question)}${mat}`;
}

/** The face on which the damage is marked that stopped it. */
export function stoppedAt({ stops, damage }: JobState): Face | undefined {
  return damage.findLast(({ id }) => stops.some((stop) => stop.id === id))?.face;
}
