import type { DeviceMap } from '../../model/device-map/index.ts';
import { type Problem, wrong } from '../../model/refusal/index.ts';
import { isBare } from './bare-map.ts';
import { COMES_NEXT, UNKNOWN_SCREW } from './teardown-of.ts';
import { type Thing, thingOf } from './teardown.ts';
import type { Told, ToldJoint, ToldPart, TeardownEventData } from './told-events.ts';
import { MOST_TOLD_JOINTS, MOST_TOLD_PARTS } from './told-schema.ts';
import { partsOff, type ToldSoFar } from './told-so-far.ts';

/** Why something that is told of a teardown can't be so; null where it can. @param so what was told before */
export function toldProblem(base: DeviceMap, so: ToldSoFar, told: Told): Problem | null {
  const { type, data } = told;
  if (type === 'take-apart') {
    if (so.isOn) return wrong('', 'It is being taken apart already.');
    return isBare(base) ? null : wrong('', 'This device has a map.', 'Say what is not as mapped (`not-mapped`).');
  }
  if (!so.isBegun) return wrong('', 'This device is not being taken apart.', 'Say first that it is (`take-apart`).');
  switch (type) {
    case 'came-off':
      return so.isOn ? (ofDescribed(base, so, data) ?? ofStep(base, so, data)) : NOT_ON;
    case 'stuck':
      return so.isOn ? ofStuck(so, data) : NOT_ON;
    case 'described':
      return ofDescribed(base, so, data);
    case 'what-held':
      return ofAnswer(so, data);
    case 'first-seen':
      return so.layers.some(({ photo }) => photo === data.photo)
        ? ofThing(so, data)
        : wrong('photo', 'This photograph is no layer of the device.', 'Say first which face it shows (`layer`).');
    case 'put-together':
      if (!so.isOn) return wrong('', 'It is being put together already.');
      return so.steps.some(({ kind }) => kind !== 'refused') ? null : wrong('', 'Nothing came off yet.');
    case 'layer':
      return data.corners && !isConvex(data.corners)
        ? wrong(
            'corners',
            'The four corners cross, or lie in one line.',
            'Go round the device: upper left first, clockwise.',
          )
        : null;
  }
}

const NOT_ON = wrong('', 'It is being put together.', 'Say that it is taken apart again (`take-apart`).');

function ofDescribed(
  base: DeviceMap,
  so: ToldSoFar,
  { parts = [], joints = [], screws = [] }: TeardownEventData['described'],
): Problem | null {
  const known = new Set([...so.parts.keys(), ...parts.map(({ id }) => id)]);
  if (known.size > MOST_TOLD_PARTS)
    return wrong('parts', `More than ${MOST_TOLD_PARTS} parts are not told at the bench.`, 'Write its map.');
  if (new Set([...so.joints.keys(), ...joints.map(({ id }) => id)]).size > MOST_TOLD_JOINTS)
    return wrong('joints', `More than ${MOST_TOLD_JOINTS} joints are not told at the bench.`, 'Write its map.');
  const letters = new Set([UNKNOWN_SCREW, ...so.screws.keys(), ...screws.map(({ id }) => id)]);
  for (const [at, part] of parts.entries()) {
    const problem = ofPart(base, so, part, `parts[${at}]`);
    if (problem) return problem;
  }
  for (const [at, joint] of joints.entries()) {
    const problem = ofJoint(so, joint, known, letters, `joints[${at}]`);
    if (problem) return problem;
  }
  return null;
}

function ofPart(base: DeviceMap, so: ToldSoFar, { id, kind, functions = [] }: ToldPart, path: string): Problem | null {
  if (id === COMES_NEXT) return wrong(`${path}.id`, `“${id}” stands for what comes off next.`, 'Give it another id.');
  const before = so.parts.get(id);
  if (!before && kind === undefined)
    return wrong(`${path}.kind`, 'Nothing says what kind of part this is.', 'Say it: “other” where nobody knows.');
  if (base.parts.some((part) => part.base && part.id === id) && kind !== undefined && kind !== 'frame')
    return wrong(
      `${path}.kind`,
      'This is what all else is held to: the frame.',
      'Tell what came off as a part of its own.',
    );
  if (base.battery?.part === id && kind !== undefined && kind !== 'battery')
    return wrong(
      `${path}.kind`,
      'This is its cell, and care is taken of it as that.',
      'Tell of what it is not as another part.',
    );
  const cells = [...so.parts.values()].filter((part) => part.kind === 'battery' && part.id !== id);
  if (kind === 'battery' && before?.kind !== 'battery' && cells.length >= MOST_CELLS)
    return wrong(`${path}.kind`, `It has ${cells.length} cells already.`, `Tell which of them it is.`);
  const missing = functions.find((each) => !base.functions.some((one) => one.id === each));
  return missing === undefined ? null : untold(`${path}.functions`, 'function', missing);
}

/** A pack in a device that is held in a hand. */
const MOST_CELLS = 6;

function ofJoint(
  so: ToldSoFar,
  { id, type, holds = [], to, screw, points, count }: ToldJoint,
  parts: ReadonlySet<string>,
  letters: ReadonlySet<string>,
  path: string,
): Problem | null {
  const before = so.joints.get(id);
  if (!before && type === undefined)
    return wrong(
      `${path}.type`,
      'Nothing says what kind of joint this is.',
      'Say it: screw, connector, bond, clip, solder or hinge.',
    );
  if (before?.type !== undefined && type !== undefined && type !== before.type)
    return wrong(`${path}.type`, `“${id}” was told as a ${before.type}.`, 'Give what is new an id of its own.');
  for (const each of holds) if (!parts.has(each)) return untold(`${path}.holds`, 'part', each);
  if (to !== undefined && !parts.has(to)) return untold(`${path}.to`, 'part', to);
  const held = holds.length > 0 ? holds : (before?.holds ?? []);
  const host = to ?? before?.to;
  if (host !== undefined && held.includes(host))
    return wrong(`${path}.holds`, 'A part can not hold itself.', 'Say what it holds, and to what.');
  if (screw !== undefined && !letters.has(screw)) return untold(`${path}.screw`, 'kind of screw', screw);
  return points && count !== undefined && points.length !== count
    ? wrong(`${path}.points`, `${count} came off, and ${points.length} places are told.`, 'Tell all places, or none.')
    : null;
}

function ofStep(base: DeviceMap, so: ToldSoFar, data: TeardownEventData['came-off']): Problem | null {
  const { before, on, joint, part, joints = [], parts = [] } = data;
  const placed = ofPlace(so, before, on);
  if (placed) return placed;
  if (part !== undefined) {
    if (!so.parts.has(part) && !parts.some(({ id }) => id === part)) return untold('part', 'part', part);
    if (base.parts.some((each) => each.base && each.id === part))
      return wrong('part', 'The frame is what all else is held to: it does not come off.', 'Tell what came off.');
    if (on === part) return wrong('on', 'A part does not come off itself.', 'Name the part that it came off.');
    if (partsOff(so).has(part)) return wrong('part', `“${part}” is off already.`, 'Tell what came off now.');
    const isOpen = so.steps.some((step) => step.kind === 'open' && step.part === part);
    return data.to === 'open' && isOpen ? wrong('part', `“${part}” is open already.`, 'Say that it is off.') : null;
  }
  const described = joints.find(({ id }) => id === joint);
  const known = { ...so.joints.get(joint), ...described };
  if (known.type === undefined) return untold('joint', 'joint', joint);
  if (known.type === 'hinge') return wrong('joint', 'A hinge is not undone.', 'Say that its part swings open.');
  const isUndone = so.steps.some((step) => step.kind === 'release' && step.joint === joint);
  if (isUndone) return wrong('joint', `“${joint}” is undone already.`, 'Tell more of it, or tell another.');
  if (before !== undefined) return null;
  // what lies on the mat is undone there
  const off = partsOff(so);
  const away = (known.holds ?? []).find((id) => off.has(id) && id !== on);
  return away !== undefined && (on === undefined || !off.has(on))
    ? wrong('on', `“${away}” came off before.`, 'Say on which part on the mat this was, or insert it earlier.')
    : null;
}

function ofPlace(so: ToldSoFar, before: string | undefined, on: string | undefined): Problem | null {
  if (before !== undefined && !so.steps.some(({ event }) => event === before))
    return wrong('before', 'Nothing that came off was told by this event.', 'Name one that stands.');
  return on === undefined || so.parts.has(on) ? null : untold('on', 'part', on);
}

function ofStuck(so: ToldSoFar, data: TeardownEventData['stuck']): Problem | null {
  const { by } = data;
  return (
    ofPlace(so, data.before, data.on) ??
    ofThing(so, data) ??
    (by ? ofThing(so, by as Thing, 'by.') : null) ??
    heldByItself(data)
  );
}

function heldByItself({ by, ...data }: TeardownEventData['stuck']): Problem | null {
  const { joint, part } = thingOf(data);
  const isSame = by && (('joint' in by && by.joint === joint) || ('part' in by && by.part === part));
  return isSame ? wrong('by', 'Nothing holds itself.', 'Name what was in the way.') : null;
}

function ofAnswer(so: ToldSoFar, data: TeardownEventData['what-held']): Problem | null {
  const problem = ofThing(so, data);
  if (problem) return problem;
  for (const list of ['options', 'by'] as const) {
    for (const [at, entry] of data[list].entries()) {
      const found = ofThing(so, entry as Thing, `${list}[${at}].`);
      if (found) return found;
    }
  }
  return null;
}

function ofThing({ parts, joints }: ToldSoFar, { joint, part }: Thing, path = ''): Problem | null {
  if (joint !== undefined) return joints.has(joint) ? null : untold(`${path}joint`, 'joint', joint);
  return parts.has(part) ? null : untold(`${path}part`, 'part', part);
}

function untold(path: string, kind: 'part' | 'joint' | 'function' | 'kind of screw', id: string): Problem {
  return wrong(path, `Nobody has told of a ${kind} “${id}”.`, 'Tell of it first, or name one that was told.');
}

/** Do they go round, without crossing? */
function isConvex(corners: readonly { readonly x: number; readonly y: number }[]): boolean {
  const turns = corners.map((at, index) => {
    const next = corners[(index + 1) % corners.length]!;
    const after = corners[(index + 2) % corners.length]!;
    return (next.x - at.x) * (after.y - next.y) - (next.y - at.y) * (after.x - next.x);
  });
  return turns.every((turn) => turn > LEAST_TURN);
}

/** Less than this, in shares of the picture, is a line. */
const LEAST_TURN = 1e-4;
