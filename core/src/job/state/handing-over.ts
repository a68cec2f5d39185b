import { type Problem, wrong } from '../../model/refusal/index.ts';
import { isAccepted, isBoard } from '../../workshop/parts/index.ts';
import { type DeviceMap, jointById } from '../../model/device-map/index.ts';
import { mainBoard, opId } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { tellAnyhow } from '../../workshop/prepare/index.ts';
import { batteryWords, bondName, heldName, lostFunctions, partName } from '../../planner/words/index.ts';
import type { ClosingEventData } from '../events/index.ts';
import { curing } from './curing.ts';
import { saidOfWater } from './opened-seals.ts';
import type { JobState } from './job-state.ts';

/** Something that is gone through before a device is handed over. */
export interface HandOverPoint {
  /** its name, as a hand-over gives it */
  readonly what: string;
  readonly text: string;
  /** it is so by what was recorded: nobody has to say it */
  readonly isDone: boolean;
  /** it comes about by itself, then: ISO 8601 */
  readonly from?: string;
}

/**
 * What is gone through before a finished device goes: adhesive that cures, a new board that was reset and is not locked, what the
 * owner has to hear once more, the old cell.
 * @param now milliseconds
 */
export function handOverPoints(mechanism: Mechanism, state: JobState, now: number): HandOverPoint[] {
  const { map } = mechanism;
  const told = new Set([...(state.agreed?.items ?? []), ...(state.prepared?.told ?? [])]);
  const fitted = state.done.flatMap(({ kind, part, new: isNew }) => (kind === 'fit' && isNew ? [part!] : []));
  const say = (what: string, text: string): HandOverPoint => ({ what, text, isDone: false });
  const cures = curing(mechanism, state);
  return [
    ...cures.map(({ joint, by, readyAt }): HandOverPoint => ({
      what: `cured:${joint}`,
      text:
        by === 'locker'
          ? `Thread locker of ${heldName(map, joint)} has set`
          : `The ${bondName(map, jointById(map, joint)!)} has the strength that is asked for`,
      isDone: now >= Date.parse(readyAt),
      from: readyAt,
    })),
    ...cures
      .filter((each) => each.late_s !== 0)
      .map(({ joint, late_s }) => say(`late:${joint}`, toldLate(map, joint, late_s))),
    ...cures.flatMap(({ joint, pressedFor }) =>
      pressedFor === null
        ? []
        : [
            say(
              `short:${joint}`,
              `The ${bondName(map, jointById(map, joint)!)} was pressed for ${pressedFor}: it may let go, and is said to the owner`,
            ),
          ],
    ),
    ...newBattery(mechanism, state, fitted),
    ...boards(mechanism, state, fitted),
    ...tellAnyhow(map, state.targets).map((text, at): HandOverPoint => ({
      what: `told:${at + 1}`,
      text: `Told and agreed: ${text}`,
      isDone: told.has(text),
    })),
    ...saidOfWater(mechanism, state).map((text, at) => say(`water:${at + 1}`, text)),
    ...oldFaults(mechanism, state),
    ...state.decisions
      .filter(({ about }) => about === 'left-open' || about === 'failed-test' || about === 'missing-screw')
      .map(({ text }, at) => say(`decided:${at + 1}`, `Decided, and said to the owner: ${text}`)),
    ...(map.battery && fitted.includes(map.battery.part)
      ? [say('old-cell', 'The old battery lies apart, its contacts covered; where it goes is a matter of local rules')]
      : []),
  ];
}

/** *Display seal: told 2 h 10 min after it was pressed, so how strong it is goes by what was told* */
function toldLate(map: DeviceMap, joint: string, late_s: number): string {
  const minutes = Math.round(Math.abs(late_s) / 60);
  const hours = Math.floor(minutes / 60);
  const said = hours > 0 ? `${hours} h ${minutes % 60} min` : `${minutes} min`;
  return `The ${bondName(map, jointById(map, joint)!)}: recorded ${said} ${late_s > 0 ? 'after' : 'before'} it was pressed; its strength goes by what was told`;
}

/** A new battery is proven: what the device reports of it, and a message about its origin only as foretold. */
function newBattery({ map }: Mechanism, { batteryReads }: JobState, fitted: readonly string[]): HandOverPoint[] {
  if (!map.battery || !fitted.includes(map.battery.part)) return [];
  const report = batteryReads.findLast(({ of }) => of === 'new');
  const text = report ? `The new battery reports ${batteryWords(report)}` : 'The report of the new battery was read';
  return [{ what: 'battery-report', text, isDone: report !== undefined && report.origin !== 'not-foretold' }];
}

/** The main board is reset where it is new; a new board is neither barred nor locked to somebody. */
function boards({ map }: Mechanism, state: JobState, fitted: readonly string[]): HandOverPoint[] {
  const fitsBoard = map.parts.filter(({ id, kind }) => kind === 'board' && fitted.includes(id));
  return fitsBoard.flatMap(({ id }) => {
    const own = state.parts.find((part) => part.mapPart === id && isBoard(map, part) && isAccepted(part));
    const name = partName(map, id);
    const isClear = own?.asked.at(-1)?.answer === 'clear';
    const reset = {
      what: `reset:${id}`,
      text: `${name} is reset and set up`,
      isDone: state.steps.has(opId('reset', id)),
    };
    return [
      ...(mainBoard(map)?.id === id ? [reset] : []),
      { what: `locks:${id}`, text: `${name} is not barred, and locked to nobody’s account`, isDone: isClear },
    ];
  });
}

/** What failed when it came in and fails still. */
function oldFaults({ map }: Mechanism, { tests, targets }: JobState): HandOverPoint[] {
  const lost = lostFunctions(map, targets);
  const last = new Map(tests.map((each) => [each.function, each.result]));
  const still = map.functions.filter(
    ({ id }) =>
      !lost.has(id) &&
      last.get(id) !== 'works' &&
      tests.some((each) => each.function === id && each.stage === 'intake' && each.result === 'fails'),
  );
  return still.map(({ id, name }) => ({
    what: `fault:${id}`,
    text: `${name} failed when it came in, and was not put right`,
    isDone: false,
  }));
}

/** Why a device is not handed over yet; null where it may go. */
export function notHandedOver(
  mechanism: Mechanism,
  state: JobState,
  { points, early }: ClosingEventData['handed-over'],
  now: number,
): Problem | null {
  if (!state.finished) return wrong('', 'What is not finished is not handed over.', 'Finish the repair first.');
  const gone = new Set(points);
  const open = handOverPoints(mechanism, state, now).filter(
    ({ what, isDone, from }) => !isDone && (from === undefined ? !gone.has(what) : early === undefined),
  );
  if (open.length === 0) return null;
  const list = open.map(({ text, from }) => (from ? `${text}: from ${from}` : text)).join('; ');
  return wrong('points', `Not handed over yet: ${list}.`, 'Go through it, wait, or say why it goes early.');
}
