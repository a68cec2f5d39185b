import { doneStep } from '../../bench/in-hand/index.ts';
import { type DeviceMap, jointById } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { bitMark, opWords } from '../../planner/words/index.ts';
import { type Line, saying } from '../question/index.ts';

/**
 * What belongs to one press, each with its place; pressed by itself it is done as far as that. Nothing where the press does
 * one thing only. What is to be known of each stands with it, since it has no screen of its own.
 */
export function stepList(map: DeviceMap, ops: readonly Op[]): readonly Line[] {
  if (ops.length < 2) return [];
  const [lead] = ops;
  return ops.map((op, at): Line => {
    const { title, thing, hint = '' } = opWords(map, op);
    const tool = op.tool !== null && op.tool !== lead!.tool ? `, ${bitMark(op.tool)}` : '';
    const steps = ops.slice(0, at + 1).map(doneStep);
    return {
      id: op.id,
      text: title,
      more: op === lead ? '' : [`${thing}${tool}`, hint].filter(Boolean).join('. '),
      at: placeOf(map, op),
      isDone: false,
      gives: saying('did', { steps }),
    };
  });
}

function placeOf(map: DeviceMap, { joint, part }: Op): string | null {
  return jointById(map, joint)?.id ?? part ?? null;
}
