import { cellSolderedAt, type Joint, jointById, partById } from '../../model/device-map/index.ts';
import type { Mechanism } from '../holds/index.ts';
import type { Move, Target } from '../search/index.ts';
import { type Op, packsOf } from '../drafts/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import { plural } from './english.ts';
import { plugWords } from './joint-words.ts';
import { bondName, heldName, jointKind, jointName, partName } from './thing-names.ts';

/** What must be told: losses, warnings, seals opened, live work, and what could not be had as wished. */
export interface Warning {
  readonly code:
    | 'lost'
    | 'data'
    | 'warning'
    | 'recalibrate'
    | 'later'
    | 'stays-with'
    | 'seal-opened'
    | 'live'
    | 'lithium'
    | 'policy'
    | 'order'
    | 'out-of-order'
    | 'no-battery'
    | 'not-reversible'
    | 'untried';
  readonly part?: string;
  readonly joint?: string;
  readonly text: string;
}

export function replacementWarnings(
  mechanism: Mechanism,
  replaced: ReadonlySet<number>,
  moves: readonly Move[],
): Warning[] {
  const { map } = mechanism;
  const fresh = new Set([...replaced, ...moves.flatMap((move) => [...move.included, ...move.renewed])]);
  const effects = [...fresh].flatMap((part) => {
    const { id, onReplace = [] } = map.parts[part]!;
    return onReplace.map((each): Warning => ({ code: each.effect, part: id, text: each.note }));
  });
  const parted = map.parts.flatMap((part, number): Warning[] => {
    if (part.staysWith === undefined) return [];
    const mate = mechanism.part.get(part.staysWith)!;
    if (fresh.has(number) === fresh.has(mate)) return [];
    const text = `${part.name} must stay together with ${partName(map, part.staysWith)}: this repair parts them.`;
    return [{ code: 'stays-with', part: part.id, text }];
  });
  return [...effects, ...parted];
}

/** Functions that are lost with a part that is replaced: they are expected to fail, and are no evidence. */
export function lostFunctions(
  { parts }: Pick<Mechanism['map'], 'parts'>,
  targets: readonly Target[],
): ReadonlySet<string> {
  const replaced = new Set(targets.flatMap((each) => ('replace' in each ? [each.replace] : [])));
  const effects = parts.filter(({ id }) => replaced.has(id)).flatMap(({ onReplace = [] }) => onReplace);
  return new Set(effects.flatMap((each) => (each.effect === 'lost' && each.function ? [each.function] : [])));
}

/** *The battery plug is undone*, *4 screws of Connector lid are taken out* */
function liveName(map: Mechanism['map'], joint: Joint): string {
  if (joint.type === 'connector') return `The ${plugWords(map, joint)} is undone`;
  if (joint.type !== 'screw') return `The ${jointKind(joint)} of ${heldName(map, joint)} is released`;
  const { length } = joint.points;
  return `${plural(length, 'screw')} of ${heldName(map, joint)} ${length === 1 ? 'is' : 'are'} taken out`;
}

export function workWarnings(mechanism: Mechanism, ops: readonly Op[]): Warning[] {
  const { map } = mechanism;
  const byId = new Map(map.joints.map((each) => [each.id, each]));
  const found: Warning[] = [];
  for (const op of ops) {
    const joint = op.joint === undefined ? undefined : byId.get(op.joint);
    if (op.kind === 'release' && joint?.type === 'bond' && joint.style === 'perimeter') {
      const text = `The ${bondName(map, joint)} is opened: water resistance is lost unless the seal is renewed, and even then it is not proven.`;
      found.push({ code: 'seal-opened', joint: joint.id, text });
    }
    if (op.live && joint) {
      const cell = cellSolderedAt(map, joint);
      const text = cell
        ? `The solder of ${heldName(map, joint)} is at a lithium cell, which is never dead. A lead allows it, or it stays as it is.`
        : `${liveName(map, joint)} while the battery is connected. Plastic tools only; isolate directly after.`;
      found.push({ code: 'live', joint: joint.id, text });
    }
    const part = op.kind === 'lift' ? partById(map, op.part) : undefined;
    if (part?.hazards?.includes('lithium')) {
      const text = `${part.name} holds lithium: do not bend, puncture or lever under its middle. Dry sand in reach; local rules decide on storage, transport and waste.`;
      found.push({ code: 'lithium', part: part.id, text });
    }
  }
  const isolates = map.joints.some((each) => each.type === 'connector' && each.isolates);
  if (!map.battery && isolates) {
    found.push({
      code: 'no-battery',
      text: 'The map has no battery, so nothing waits for isolation. Check the device.',
    });
  }
  return found;
}

/** What is glued down before it can be tried, and why it can't be tried before. */
export function untriedWarnings({ map }: Mechanism, ops: readonly Op[]): Warning[] {
  const parts = ops.flatMap(({ untried }) => untried ?? []);
  return parts.map((part) => {
    const down = ops.findIndex((op) => (op.kind === 'close' || op.kind === 'fit') && op.part === part && !op.staysOpen);
    const waits = ops.slice(Math.max(down, 0)).find((op) => {
      const joint = op.kind === 'make' ? jointById(map, op.joint) : undefined;
      return joint?.type === 'connector' && (joint.holds.includes(part) || joint.isolates !== undefined);
    });
    const joint = waits && jointById(map, waits.joint);
    const why = joint ? `${jointName(map, joint)} comes only after. ` : '';
    const text = `${partName(map, part)} is glued down before it can be tried. ${why}What fails in it takes a new seal.`;
    return { code: 'untried', part, text };
  });
}

export function transplantWarnings(mechanism: Mechanism, replaced: ReadonlySet<number>, policy: Policy): Warning[] {
  if (policy.newBattery !== 'cell-transplant') return [];
  return packsOf(mechanism, replaced).map((part) => ({
    code: 'warning',
    part,
    text: 'The cell inside the battery is replaced and its management board is kept. This is disclosed in the record and on the hand-over.',
  }));
}
