import { runDown } from '../../model/battery/index.ts';
import type { DeviceMap, Part } from '../../model/device-map/index.ts';
import { DEFAULT_LIMITS } from '../../model/limits/index.ts';
import { type Draft, procedureDraft } from './draft.ts';
import { TIMES } from './estimates.ts';

/**
 * A new main board is reset and set up before everything is tried, while it can still be reached: one that refuses is not
 * sealed in. A reset refuses to run on a cell that is nearly empty, so charging stands before it. Nobody knows the charge
 * here: it is planned from empty.
 */
export function setUpDrafts(map: DeviceMap, isReplaced: (part: Part) => boolean): Draft[] {
  const board = mainBoard(map);
  if (!board || !isReplaced(board)) return [];
  const { battery } = map;
  const reset = procedureDraft({ name: 'reset', part: board.id, seconds: TIMES.reset, stage: 'prove', after: [] });
  if (!battery) return [reset];
  const charge = procedureDraft({
    name: 'charge',
    part: battery.part,
    seconds: TIMES.charge,
    wait_s: toResetFloor_s(battery),
    stage: 'prove',
    after: [],
  });
  return [charge, reset];
}

/** A battery that was renewed is proven by what the device reports of it, before it is sealed in. */
export function batteryProof({ battery, parts }: DeviceMap, isReplaced: (part: Part) => boolean): Draft[] {
  const part = parts.find(({ id }) => id === battery?.part);
  if (!part || !isReplaced(part)) return [];
  return [
    procedureDraft({ name: 'read-battery', part: part.id, seconds: TIMES.readBattery, stage: 'prove', after: [] }),
  ];
}

/** The board that the map says holds data, else the largest. */
export function mainBoard({ parts }: DeviceMap): Part | undefined {
  const boards = parts.filter((each) => each.kind === 'board');
  const area = ({ box }: Part) => box.w * box.h;
  return (
    boards.find((each) => each.onReplace?.some(({ effect }) => effect === 'data')) ??
    boards.toSorted((a, b) => area(b) - area(a) || (a.id < b.id ? -1 : 1))[0]
  );
}

function toResetFloor_s({ cells, wiring }: NonNullable<DeviceMap['battery']>): number {
  const { resetFloor, charger_W } = DEFAULT_LIMITS;
  return Math.round(runDown({ cells, wiring, charge: resetFloor, target: 0, load_W: charger_W }).seconds);
}
