import { assembled, type DeviceState, isDead, liveJoints, type Mechanism, OFF, SEATED } from '../holds/index.ts';
import { ownRemoval } from '../search/index.ts';
import type { Warning } from '../words/index.ts';
import type { Ruled } from './careful.ts';

/**
 * Rules of order that the present state has broken already: they are kept for what is left, and that is said. What a
 * part's own removal needs breaks none.
 */
export function brokenRules(mechanism: Mechanism, start: DeviceState, { phases, chosen }: Ruled): Warning[] {
  const { parts } = mechanism.map;
  const { ops } = chosen.precedence;
  const whole = assembled(mechanism);
  const live = liveJoints(mechanism, whole);
  const lifted = (index: number) => {
    const op = ops[index]!;
    return op.kind === 'lift' ? op.part : -1;
  };
  /** parts that were moved though taking this one off does not need it */
  const movedBeside = (part: number) => {
    const own = ownRemoval(mechanism, whole, part, live);
    return parts.flatMap((_, other) => (start.status[other] !== SEATED && !own?.parts[other] ? [other] : []));
  };
  const isBeneath = (display: number) => (other: number) =>
    start.status[other] === OFF && mechanism.partUnder[other]!.some((wait) => wait.part === display);
  const warning = (text: string, part?: number): Warning => ({
    code: 'order',
    ...(part === undefined ? {} : { part: parts[part]!.id }),
    text,
  });

  const late = [...phases.removedFirst]
    .map(lifted)
    .filter((part) => parts[part]?.removeFirst && movedBeside(part).some((other) => !parts[other]!.removeFirst))
    .map((part) =>
      warning('Removed first: this was to come out before the device was opened. It comes out now.', part),
    );
  const isAlive = phases.dead.size > 0 && !isDead(mechanism, start);
  const undoneAlive = mechanism.map.joints.some(
    (_, joint) => mechanism.isolation.asked[joint] && start.released[joint] && !live.has(joint),
  );
  const alive =
    isAlive && undoneAlive
      ? [warning('Dead first: something was undone while the device was live. It is made dead now.')]
      : [];
  const standing = phases.displays
    .map(({ lift }) => lifted(lift))
    .filter((display) => movedBeside(display).some(isBeneath(display)))
    .map((display) => warning('Display off: something beneath it came off while it stood. It comes off now.', display));
  return [...late, ...alive, ...standing];
}
