import type { EventData } from '../../job/events/index.ts';
import type { JobState } from '../../job/state/index.ts';
import { type FailedTest, failedTogether, type SharedSuspect, type SuspectCost } from '../../bench/in-hand/index.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { type Target, targetId } from '../../planner/search/index.ts';
import { capital, duration, functionName, jointWords, partName, plural, thingName } from '../../planner/words/index.ts';
import {
  type Gives,
  type Keyless,
  type Line,
  NOTHING_ASKED,
  type Question,
  saying,
  withKeys,
} from '../question/index.ts';

/** Less likely is no advice (guess). */
const WORTH_SAYING = 0.2;
/** What is less likely is not offered while it still stands open (guess). */
const WORTH_REACHING = 0.05;

/**
 * A function that failed keeps the device from being closed: what to press again, what that costs, and the ways on.
 * Several failures share one list of what may be the cause.
 * @param stage when it is tried again: after the device was closed, before its seal, or in the middle of the work
 */
export function askedOfFault(
  map: DeviceMap,
  state: JobState,
  failed: readonly FailedTest[],
  stage: EventData['test']['stage'],
): Question {
  const [first, ...others] = failed;
  const id = first!.function;
  const isClosed = stage === 'after';
  const { suspects, again } = failedTogether(failed);
  const reach = (at: readonly SuspectCost[]): Gives =>
    saying('targets', { targets: withTargets(state, at.map(targetOf)) });
  const tried = (result: 'works' | 'fails') => saying('test', { function: id, result, stage });
  // what was likely to blame has been at hand since it failed: first it is tried again
  const isTried = wasLookedAt(state, id, suspects);
  const isAdvised = suspects[0] !== undefined && (others.length > 0 || isWorthSaying(suspects[0]));
  const way: readonly Keyless[] = isAdvised
    ? [
        {
          id: 'again',
          label: wayTo(map, again, isClosed),
          weight: isClosed || isTried ? 'plain' : 'main',
          gives: reach(again),
        },
      ]
    : [];
  const names = failed.map((each) => functionName(map, each.function));
  return {
    ...NOTHING_ASKED,
    id: `failed:${id}`,
    place: 'Test · not to be closed',
    title: `${names[0]} fails`,
    detail: others.length > 0 ? `${names.slice(1).join(', ')} as well` : 'It stays open until it works, or is decided',
    hint: isTried ? 'It was seen to: try it again.' : (adviceOn(map, isClosed ? [] : again) ?? ''),
    why: tryNextWords(map, first!),
    list: suspects.map((suspect): Line => ({
      id: suspect.joint ?? suspect.part!,
      text: capital(suspectName(map, suspect)),
      more: costWords(map, suspect, others.length > 0),
      at: suspect.joint ?? suspect.part ?? null,
      isDone: false,
      gives: isClosed || suspect.p >= WORTH_REACHING ? reach([suspect]) : null,
    })),
    field: { label: 'Closed all the same, since', kind: 'text', cure: 'Say why it is closed all the same.' },
    answers: withKeys([
      ...(isTried ? [] : way),
      {
        id: 'works',
        label: `${others.length > 0 ? `${names[0]}, tried` : 'Tried'} again: works`,
        weight: isTried ? 'main' : 'plain',
        gives: tried('works'),
      },
      { id: 'fails', label: 'Still fails', weight: 'warning', gives: tried('fails') },
      {
        id: 'decide',
        label: 'Close it all the same',
        weight: 'plain',
        gives: saying('decision', { about: 'failed-test', function: id, text: '' }),
        takes: { name: 'text' },
      },
      ...(isTried ? way : []),
    ]),
  };
}

/** Was something that may explain it worked on since it failed the last time? */
function wasLookedAt({ inForce }: JobState, id: string, suspects: readonly SuspectCost[]): boolean {
  const failedAt = inForce.findLastIndex(
    ({ type, data }) => type === 'test' && data.function === id && data.result === 'fails',
  );
  const things = new Set(suspects.flatMap(({ joint, part }) => [joint, part]));
  return inForce
    .slice(failedAt + 1)
    .some(
      ({ type, data }) => type === 'did' && data.steps.some((step) => things.has(step.joint) || things.has(step.part)),
    );
}

function withTargets({ targets }: JobState, more: readonly Target[]): readonly Target[] {
  const asked = new Set(more.map((each) => targetId(each)));
  return [...targets.filter((each) => !asked.has(targetId(each))), ...more];
}

function targetOf({ joint, part }: SuspectCost): Target {
  return joint === undefined ? { remove: part! } : { reach: joint };
}

/** *Reseat the touch flex*, *Open it again for this* */
function wayTo(map: DeviceMap, again: readonly SuspectCost[], isClosed: boolean): string {
  if (isClosed) return 'Open it again for this';
  const names = again.map((each) => suspectName(map, each)).join(' and the ');
  return again[0]?.joint === undefined ? `Get at the ${names}` : `Reseat the ${names}`;
}

/** A plug by what it serves: a part may have several. */
function suspectName(map: DeviceMap, { joint, part }: SuspectCost): string {
  if (joint === undefined) return partName(map, part!);
  const { title } = jointWords(map, joint).on;
  return title.startsWith(PLUG_IN) ? title.slice(PLUG_IN.length) : thingName(map, joint);
}

const PLUG_IN = 'Plug in the ';

function isWorthSaying({ now_s, p }: SuspectCost): boolean {
  return now_s !== null && p >= WORTH_SAYING;
}

/** *Reseat the touch flex before it is closed: 1 min, 81 %.* Null where it can't be got at, or is hardly to blame. */
function adviceOn(map: DeviceMap, again: readonly SharedSuspect[]): string | null {
  const [first] = again;
  if (!first || again.length > 1 || !isWorthSaying(first)) return null;
  const doing = first.joint === undefined ? 'Look at the' : 'Reseat the';
  return `${doing} ${suspectName(map, first)} before it is closed: ${duration(first.now_s!)}, ${percent(first.p)}.`;
}

function percent(p: number): string {
  return p < 0.01 ? 'under 1 %' : `${Math.round(p * 100)} %`;
}

/** *81 %: touched 2 times. Again: 1 min now, 14 min and 1 seal once it is closed.* */
function costWords(map: DeviceMap, suspect: SharedSuspect, isShared: boolean): string {
  const { touched, troubled, unsure, p, now_s, afterSealing_s, seals, explains } = suspect;
  const now = now_s === null ? [] : [`${duration(now_s)} now`];
  const seal = seals > 0 ? ` and ${plural(seals, 'seal')}` : '';
  const later = afterSealing_s === null ? [] : [`${duration(afterSealing_s)}${seal} once it is closed`];
  const times = `touched ${plural(touched, 'time')}${troubled ? ', with trouble' : ''}${unsure ? ', nobody was sure that it clicked' : ''}`;
  const cost = [...now, ...later].join(', ');
  const explained = isShared ? ` Explains ${explains.map((id) => functionName(map, id)).join(', ')}.` : '';
  return `${percent(p)}: ${times}.${cost ? ` Again: ${cost}.` : ''}${explained}`;
}

function tryNextWords(map: DeviceMap, { suspects, tryNext }: FailedTest): string {
  if (tryNext)
    return `Trying ${functionName(map, tryNext.function)} tells most next (${tryNext.bits.toFixed(1)} bits).`;
  return suspects.length === 0 ? 'Nothing that serves it was touched in this job.' : '';
}
