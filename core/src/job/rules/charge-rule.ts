import { type Problem, wrong } from '../../model/refusal/index.ts';
import { groupOfJoint, type Mechanism, OFF } from '../../planner/holds/index.ts';
import { settled } from '../../model/policy/index.ts';
import { type ChargeNeed, chargeNeed, chargeSchool } from '../../workshop/prepare/index.ts';
import type { BenchEvent, EventData } from '../events/index.ts';
import type { JobState } from '../state/index.ts';

type Cut = { readonly kind: 'release'; readonly joint: string };

/**
 * Why nothing is cut, heated or levered near a cell yet: it is in, and holds more than it may, or nobody knows what it
 * holds. Judged where it happens, so that no way round the gate is one round this. What happened all the same is told with
 * `anyway`.
 */
export function chargeProblem(mechanism: Mechanism, state: JobState, event: BenchEvent): Problem | null {
  const cuts = cutsOf(event).filter(({ joint }) => isBesideCell(mechanism, state, joint));
  const need = cuts.length > 0 && !isChargeSettled(state) ? runDownFor(mechanism, state, cuts) : null;
  if (!need) return null;
  const read = need.charge === null ? 'Nobody has read it' : `It holds ${percent(need.charge)}`;
  return wrong(
    'charge',
    `${read}, and at most ${percent(need.target)} may be in a cell beside a cut.`,
    'Read it, run it down, or decide about it with the reason.',
  );
}

/** What some cuts ask of the charge, with the last reading, by the school of this repair. */
export function runDownFor(
  { map }: Mechanism,
  state: JobState,
  cuts: Parameters<typeof chargeNeed>[1],
): ChargeNeed | null {
  const { policy } = settled(map, state.policy);
  if (chargeSchool(map, state.targets, policy) !== 'run-down') return null;
  const need = chargeNeed(map, cuts, 'run-down', state.limits, state.charges.at(-1)?.charge ?? null);
  return need?.way === 'run-down' ? need : null;
}

/**
 * Somebody has decided to go on with the charge as it is (a dead device can't be run down). A reading that comes after it
 * is judged by itself.
 */
export function isChargeSettled({ chargeDecided }: JobState): boolean {
  return chargeDecided;
}

/** A charge that is shown with the bench is a reading like any other, unless it only says the last one again. */
export function isNewReading({ charges }: JobState, { charge }: EventData['prepared']): boolean {
  return charge !== undefined && charge !== charges.at(-1)?.charge;
}

/** What an event cuts, pries off or warms. */
function cutsOf(event: BenchEvent): Cut[] {
  switch (event.type) {
    case 'edge':
    case 'heat-on':
      return [{ kind: 'release', joint: event.data.joint }];
    case 'came-off':
      return event.data.joint === undefined ? [] : [{ kind: 'release', joint: event.data.joint }];
    case 'did':
      if (event.data.anyway !== undefined) return [];
      return event.data.steps.flatMap(({ kind, name, joint }) =>
        joint !== undefined && (kind === 'release' || name === 'heat') ? [{ kind: 'release' as const, joint }] : [],
      );
    default:
      return [];
  }
}

/** Is the cell in, where a joint lies? What is cut on the mat, away from it, does it no harm. */
function isBesideCell(mechanism: Mechanism, { device }: JobState, joint: string): boolean {
  const cell = mechanism.part.get(mechanism.map.battery?.part ?? '');
  const number = mechanism.joint.get(joint);
  if (cell === undefined || number === undefined || device.released[number]) return false;
  return device.status[cell] !== OFF && device.group[cell] === groupOfJoint(mechanism, device, number);
}

function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}
