import { notInMap, type Problem, wrong } from '../../model/refusal/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { thingName } from '../../planner/words/index.ts';
import { type DeskPart, isAccepted, partVerdict } from '../../workshop/parts/index.ts';
import type { BenchEvent, PartEventData } from '../events/index.ts';
import { grown, type JobState, type Outcome } from '../state/index.ts';

export type PartEvent = Extract<BenchEvent, { type: keyof PartEventData }>;

/** The parts desk of one job: parts arrive, are looked at, decided on, sent back. */
export function atDesk(mechanism: Mechanism, state: JobState, event: PartEvent): Outcome {
  if (event.type === 'part-arrived') return arrived(mechanism, state, event.data);
  const part = state.parts.find((each) => each.id === event.data.part);
  if (!part) return { problem: wrong('part', 'There is no such part at the desk of this job.', 'Add it there first.') };
  if (part.sentBack)
    return { problem: wrong('part', 'This part was sent back.', 'Add the one that came in its place.') };
  const changed = changedPart(mechanism, part, event);
  if ('problem' in changed) return changed;
  return { state: { ...state, parts: state.parts.map((each) => (each.id === part.id ? changed.part : each)) } };
}

function arrived(mechanism: Mechanism, state: JobState, data: PartEventData['part-arrived']): Outcome {
  if (!mechanism.part.has(data.mapPart)) return { problem: notInMap('mapPart', 'part', data.mapPart) };
  if (state.parts.some((each) => each.id === data.part))
    return { problem: wrong('part', 'This part is at the desk already.') };
  if (state.parts.length >= MOST_PARTS)
    return { problem: wrong('part', `A repair has at most ${MOST_PARTS} parts at the desk.`) };
  const { part: id, ...rest } = data;
  const part: DeskPart = { ...rest, id, looked: null, numbers: [], asked: [], decision: null, sentBack: null };
  return { state: { ...state, parts: grown(state.parts, part) } };
}

/** No repair has seen so many. */
const MOST_PARTS = 200;

function changedPart(
  mechanism: Mechanism,
  part: DeskPart,
  event: Exclude<PartEvent, { type: 'part-arrived' }>,
): { part: DeskPart } | { problem: Problem } {
  switch (event.type) {
    case 'part-looked': {
      const { condition, includes, lacks, text } = event.data;
      const strange = includes.find((id) => !mechanism.part.has(id)) ?? lacks.find((id) => !mechanism.joint.has(id));
      if (strange !== undefined) return { problem: wrong('', `There is no “${strange}” in this map.`) };
      return { part: { ...part, looked: { condition, includes, lacks, text } } };
    }
    case 'part-number': {
      const { place, value } = event.data;
      const others = part.numbers.filter((each) => each.place !== place);
      return { part: { ...part, numbers: value.trim() === '' ? others : [...others, { place, value }] } };
    }
    case 'part-asked': {
      const { answer, where, number, at, simulated } = event.data;
      return { part: { ...part, asked: [...part.asked, { answer, where, number, at, simulated }] } };
    }
    case 'part-decided': {
      const { decision, text } = event.data;
      const { verdict, reasons } = partVerdict(mechanism.map, part);
      if (decision === 'accept' && verdict !== 'use') {
        return {
          problem: wrong(
            '',
            `Not accepted. ${reasons.join(' ')}`,
            'To use it all the same, record who decided, and why.',
          ),
        };
      }
      if (decision === 'accept-anyway' && text.trim() === '') {
        return { problem: wrong('reason', 'Nobody decided to use it all the same.', 'Record who did, and why.') };
      }
      return { part: { ...part, decision: { decision, text, by: event.by, at: event.at } } };
    }
    case 'part-sent-back':
      return { part: { ...part, sentBack: { date: event.data.date, text: event.data.text } } };
  }
}

/** Why a new part may not go in: some came for this place, and none of them was accepted. */
export function notAccepted(mechanism: Mechanism, state: JobState, mapPart: string): Problem | null {
  const came = state.parts.filter((each) => each.mapPart === mapPart);
  if (came.length === 0 || came.some(isAccepted)) return null;
  const last = came.at(-1)!;
  const { reasons } = partVerdict(mechanism.map, last);
  const why = last.sentBack ? 'It was sent back.' : reasons.join(' ');
  return wrong('part', `The new ${thingName(mechanism.map, mapPart)} is not accepted at the parts desk. ${why}`);
}

/** Parts that are to be replaced and whose new one came and was not accepted: nothing is opened for them. */
export function heldParts(mechanism: Mechanism, state: JobState): string[] {
  return state.targets.flatMap((each) =>
    'replace' in each && notAccepted(mechanism, state, each.replace) !== null ? [each.replace] : [],
  );
}
