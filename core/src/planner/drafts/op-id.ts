import type { Mechanism, PhysicalOp } from '../holds/index.ts';

/** The fixed procedures that stand between the physical operations. */
export type ProcedureName =
  | 'power-off'
  | 'film'
  | 'film-off'
  | 'heat'
  | 'soak'
  | 'vent'
  | 'clean'
  | 'dry'
  | 'wipe'
  | 'lay'
  | 'liner-off'
  // an old pad or tape: does it still stick?
  | 'tack'
  | 'press'
  // old and new part side by side, once all has moved over
  | 'compare'
  // a new base, on which all the rest goes
  | 'take-up'
  // the flex of a battery that was unplugged
  | 'bend-aside'
  // a plug whose function failed
  | 'press-home'
  | 'cure'
  | 'count'
  | 'renew'
  | 'power-on'
  | 'test'
  | 'transplant'
  // what the device reports of a new battery
  | 'read-battery'
  // a new board
  | 'charge'
  | 'reset'
  // what has to be settled before the device may be opened
  | 'agree'
  | 'run-down'
  | 'charge-up'
  | 'prepare'
  | 'tape'
  | 'tape-off'
  // what the marks of intake ask for
  | 'brush'
  | 'true'
  // what trouble asks for
  | 'look'
  // a part that is to be looked at before it goes back
  | 'inspect'
  // a part that the map does not have
  | 'take-off'
  | 'put-back'
  // a wet device
  | 'wash'
  | 'air-dry'
  | 'try';

type Doing = PhysicalOp['kind'] | ProcedureName;

/** What is done, and where there are several of it, to what: *release:display-plug*, *heat:front-seal*, *power-off*. */
export type OpId = Doing | `${Doing}:${string}`;

/** @param thing the id of a joint or part, or what tells it from others of its kind */
export function opId(doing: Doing, thing?: string): OpId {
  return thing === undefined ? doing : `${doing}:${thing}`;
}

export function physicalId({ map }: Mechanism, op: PhysicalOp): OpId {
  return opId(op.kind, 'joint' in op ? map.joints[op.joint]!.id : map.parts[op.part]!.id);
}

/** The joint or part that an operation is done to, by the operation's id. */
export function thingOf(id: string): string {
  return id.slice(id.indexOf(':') + 1);
}

/** The operation with which a part goes down on what lies beneath it: its closing, else its fitting; none where neither is. */
export function downOf(ids: ReadonlySet<string>, part: string): OpId[] {
  return [opId('close', part), opId('fit', part)].filter((id) => ids.has(id)).slice(0, 1);
}

/** Off with the film that was laid over the glass before anything was opened. */
export const GLASS_FILM_OFF = 'film-off:glass' satisfies OpId;
/** The test before the device is sealed, and the one when everything is back. */
export const TEST_BEFORE = 'test:before' satisfies OpId;
export const TEST_AFTER = 'test:after' satisfies OpId;
