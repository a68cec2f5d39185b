import { notInMap, wrong } from '../../model/refusal/index.ts';
import { opId } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { settled } from '../../model/policy/index.ts';
import { isNewReading } from './charge-rule.ts';
import type { BenchEvent, IntakeEventData } from '../events/index.ts';
import { grown, type JobState, type Outcome } from '../state/index.ts';
import { withMark } from './mark.ts';
import { mappedThickness_mm } from './stops.ts';

export type IntakeEvent = Extract<BenchEvent, { type: keyof IntakeEventData }>;

/** What the lead confirms before a cell may be taken out of its pack, and what is checked after. */
export const TRANSPLANT_GATE = ['training', 'local rules', 'eyes', 'sand'] as const;
export const TRANSPLANT_CHECKS = ['polarity', 'pull test', 'insulation'] as const;

export function atIntake(mechanism: Mechanism, state: JobState, event: IntakeEvent): Outcome {
  const { at, by } = event;
  switch (event.type) {
    case 'words':
      return { state: { ...state, words: event.data.text } };
    case 'damage': {
      const { part } = event.data;
      if (part !== undefined && !mechanism.part.has(part)) return { problem: notInMap('part', 'part', part) };
      return { state: { ...state, damage: grown(state.damage, { ...event.data, id: event.id }) } };
    }
    case 'photo':
      return { state: { ...state, photos: grown(state.photos, { ...event.data, id: event.id, at, by }) } };
    case 'retract':
      return retracted(state, event.data.event);
    case 'measure':
      return measured(mechanism, state, event);
    case 'wet':
      if (!mechanism.map.battery)
        return { problem: wrong('', 'The map has no battery to take off.', 'Change the map first.') };
      return { state: { ...state, wet: { ...event.data, decided: null } } };
    case 'charge':
      return { state: { ...state, chargeDecided: false, charges: grown(state.charges, { ...event.data, at }) } };
    case 'told':
      return { state: { ...withMark(state, 'agree'), agreed: { ...event.data, at } } };
    case 'prepared':
      return { state: prepared(state, event) };
    case 'battery-read':
      if (!mechanism.map.battery) return { problem: wrong('of', 'The map has no battery.', 'Change the map first.') };
      return { state: { ...state, batteryReads: grown(state.batteryReads, { ...event.data, at }) } };
    case 'policy':
      return schooled(mechanism, state, event.data);
    case 'transplant-allowed':
      return allowed(state, event.data, at);
    case 'transplant-done':
      return transplanted(mechanism, state, event.data, at);
  }
}

/**
 * Ends the wait for the charge, since the bench was shown as prepared, and records a charge that was shown with it
 * like a reading of its own.
 */
function prepared(state: JobState, { at, by, data }: IntakeEvent & { type: 'prepared' }): JobState {
  const { charge } = data;
  return {
    ...withMark(state, 'prepare'),
    prepared: { ...data, at, by },
    timers: notOfCharge(state),
    ...(charge === undefined
      ? {}
      : {
          chargeDecided: state.chargeDecided && !isNewReading(state, data),
          charges: grown(state.charges, { charge, source: 'typed' as const, at }),
        }),
  };
}

function notOfCharge({ timers }: JobState): JobState['timers'] {
  return timers.filter(({ step }) => step !== 'run-down' && step !== 'charge-up');
}

function retracted(state: JobState, id: string): Outcome {
  if (![...state.damage, ...state.photos].some((each) => each.id === id)) {
    return { problem: wrong('of', 'There is no such mark or photograph to take back.') };
  }
  const others = <T extends { readonly id: string }>(all: readonly T[]) => all.filter((each) => each.id !== id);
  return { state: { ...state, damage: others(state.damage), photos: others(state.photos) } };
}

function measured(mechanism: Mechanism, state: JobState, event: IntakeEvent & { type: 'measure' }): Outcome {
  const { part, thickness_mm } = event.data;
  const mapped_mm = mappedThickness_mm(mechanism, part);
  if (mapped_mm === null) return { problem: notInMap('part', 'part', part!) };
  if (mapped_mm === 0)
    return { problem: wrong('part', `The map gives “${part}” no thickness to compare with.`, 'Change the map first.') };
  const over_percent = (thickness_mm / mapped_mm - 1) * 100;
  return {
    state: { ...state, measured: grown(state.measured, { ...event.data, mapped_mm, over_percent, at: event.at }) },
  };
}

function schooled({ map }: Mechanism, state: JobState, { change }: IntakeEventData['policy']): Outcome {
  const { unknown } = settled(map, change);
  if (unknown.length > 0)
    return {
      problem: wrong(
        'policy',
        `There is no such school for ${unknown.join(', ')}.`,
        'Choose one that the page of schools has.',
      ),
    };
  if (change.newBattery === 'cell-transplant' && !state.transplant.allowed) {
    return { problem: notAllowed };
  }
  return { state: { ...state, policy: { ...state.policy, ...change } } };
}

function allowed(state: JobState, data: IntakeEventData['transplant-allowed'], at: string): Outcome {
  const lacking = TRANSPLANT_GATE.filter((each) => !data.confirmed.includes(each));
  if (lacking.length > 0) return { problem: wrong('', 'Not allowed yet.', `To be confirmed: ${lacking.join(', ')}.`) };
  const most = state.limits.transplantCharge;
  if (data.charge > most) {
    return {
      problem: wrong(
        'charge',
        `The cell holds ${percent(data.charge)}; not more than ${percent(most)} may be worked on.`,
        'Run it down.',
      ),
    };
  }
  return { state: { ...state, transplant: { ...state.transplant, allowed: { ...data, at } } } };
}

function transplanted(
  mechanism: Mechanism,
  state: JobState,
  data: IntakeEventData['transplant-done'],
  at: string,
): Outcome {
  if (!state.transplant.allowed) return { problem: notAllowed };
  const lacking = TRANSPLANT_CHECKS.filter((each) => !data.checked.includes(each));
  if (lacking.length > 0) return { problem: wrong('', 'Not taken.', `To be checked: ${lacking.join(', ')}.`) };
  const all = [data.old_V, ...data.cells_V];
  const difference_V = Math.max(...all) - Math.min(...all);
  const most_V = state.limits.transplantDifference_V;
  // volts are read to the millivolt: a difference at the limit is not over it
  if (difference_V > most_V + 1e-9) {
    return {
      problem: wrong(
        '',
        `The cells differ by ${difference_V.toFixed(3)} V; ${most_V} V is the most.`,
        'Match them first.',
      ),
    };
  }
  const pack = mechanism.map.battery?.part ?? '';
  return {
    state: { ...withMark(state, opId('transplant', pack)), transplant: { ...state.transplant, done: { ...data, at } } },
  };
}

function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}

const notAllowed = wrong('', 'A cell transplant is for the lead to allow first.');
