import { type DeviceState, isDead, type Mechanism, OFF, SEATED } from '../holds/index.ts';
import type { Policy } from '../policy/index.ts';
import type { Warning } from '../words/index.ts';
import type { Ruled } from './careful.ts';

/** Rules of order that the present state has broken already: they are kept for what is left, and that is said. */
export function brokenRules(
  mechanism: Mechanism,
  start: DeviceState,
  { phases, chosen }: Ruled,
  policy: Policy,
): Warning[] {
  const { map } = mechanism;
  const ops = chosen.precedence.ops;
  const begun = map.parts.some((part, number) => !part.removeFirst && start.status[number] !== SEATED);
  const warnings: Warning[] = [];
  const warn = (text: string, part?: string) => warnings.push({ code: 'order', ...(part ? { part } : {}), text });
  if (begun && phases.removedFirst.size > 0) {
    for (const index of phases.removedFirst) {
      const op = ops[index]!;
      if (op.kind === 'lift' && map.parts[op.part]!.removeFirst) {
        warn(
          'Removed first: this was to come out before the device was opened. It comes out now.',
          map.parts[op.part]!.id,
        );
      }
    }
  }
  if (phases.dead.size > 0 && !isDead(mechanism, start) && undoneBeyond(mechanism, start)) {
    warn('Dead first: something was undone while the device was live. It is made dead now.');
  }
  if (policy.display !== 'on-flexes') {
    for (const { lift } of phases.displays) {
      const { part } = ops[lift] as { part: number };
      const beneath = map.parts.some(
        (each, number) =>
          start.status[number] === OFF &&
          (each.under ?? []).some((entry) => 'part' in entry && entry.part === map.parts[part]!.id),
      );
      if (beneath)
        warn('Display off: something beneath it came off while it stood. It comes off now.', map.parts[part]!.id);
    }
  }
  return warnings;
}

/** Tethers that were undone live, though nothing that makes the device dead asks for them. */
function undoneBeyond(mechanism: Mechanism, start: DeviceState): boolean {
  return mechanism.map.joints.some((_, joint) => mechanism.isolation.asked[joint] && start.released[joint] === 1);
}
