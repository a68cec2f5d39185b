import { isDrying } from '../../job/rules/index.ts';
import type { ChargeNeed } from '../../workshop/prepare/index.ts';
import { duration } from '../../planner/words/index.ts';
import { waitLeftOfClock } from './clock-beside.ts';
import {
  CHARGE_FIELD,
  CHARGE_READ,
  type Gives,
  type Keyless,
  NOTHING_ASKED,
  type Question,
  saying,
  type Turns,
  withKeys,
} from '../question/index.ts';
import type { Preparing } from './preparing.ts';

const percent = (share: number) => `${Math.round(share * 100)} %`;

/** What has to become of the charge first. Nobody waits for a wet device to run down: there it is decided. */
function needOf({ ahead: { ops, charge }, state }: Preparing): ChargeNeed | null {
  const isPlanned = ops.some(({ name }) => name === 'run-down' || name === 'charge-up');
  return isPlanned || isDrying(state) ? charge : null;
}

/** Run down, or charged enough: read, waited for by the clock, or decided with a reason. */
export function chargeAsked(preparing: Preparing): Turns {
  const { mechanism, state, now } = preparing;
  if (!mechanism.map.battery) return [];
  const need = needOf(preparing);
  const last = state.charges.at(-1);
  if (!need && !last && !state.decisions.some(({ about }) => about === 'charge')) return [];
  const wanted = need ? `${need.way === 'run-down' ? 'below' : 'at least'} ${percent(need.target)} wanted` : '';
  const read = last ? `${percent(last.charge)}${last.simulated ? ' (simulated)' : ''}` : 'not read yet';
  return [
    {
      name: 'Battery charge',
      said: need ? `${read}, ${wanted}` : last ? `${percent(last.charge)}, right for this repair` : 'decided',
      isDone: !need,
      question: {
        ...NOTHING_ASKED,
        id: 'charge',
        title: 'Battery charge',
        detail: need ? `${read}: ${wanted}` : `${read}, right for this repair`,
        hint: need?.why ?? '',
        field: CHARGE_FIELD,
        wait: need && waitLeftOfClock(state, need.way, now),
        answers: withKeys([
          CHARGE_READ,
          ...(need
            ? ways(
                need,
                state.timers.some(({ step }) => step === need.way),
              )
            : []),
        ]),
      },
    },
  ];
}

function ways(need: ChargeNeed, isTimed: boolean): readonly Keyless[] {
  const clock: Gives | null =
    need.seconds !== null && !isTimed ? saying('timer', { step: need.way, seconds: need.seconds }) : null;
  const doing = need.way === 'run-down' ? 'Running down' : 'Charging';
  const label = `${doing}: start the clock${need.seconds === null ? '' : `, ${duration(need.seconds)}`}`;
  return [
    ...(clock ? [{ id: 'clock', label, weight: 'plain', gives: clock } as const] : []),
    { id: 'anyway', label: 'Open it as it is', weight: 'plain', gives: { kind: 'then', question: anyway(need) } },
  ];
}

/** A charge that is not right is decided about by somebody, with the reason. */
function anyway({ why }: ChargeNeed): Question {
  return {
    ...NOTHING_ASKED,
    id: 'charge-anyway',
    title: 'Open it as it is?',
    hint: why,
    field: { label: 'Who decides, and why', kind: 'text', cure: 'Say who decides, and why: it is recorded.' },
    answers: withKeys([
      {
        id: 'decide',
        label: 'That is decided',
        weight: 'main',
        gives: saying('decision', { about: 'charge', text: '' }),
        takes: { name: 'text' },
      },
    ]),
  };
}
