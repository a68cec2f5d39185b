import { bondInHand, bondWork, cutInHand, edgeInHand } from '../../bench/in-hand/index.ts';
import { isDead } from '../../planner/holds/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { cautionFor } from '../../planner/words/index.ts';
import type { Told } from '../question/index.ts';
import type { BenchNow } from './bench-now.ts';

/** What is cautioned of before a step: in full before its first step of a stage, then as a mark. */
export function stepCautions({ mechanism, state, ahead, atHand, unit }: BenchNow, op: Op): readonly Told[] {
  const { map } = mechanism;
  const dead = isDead(mechanism, state.device);
  const bond = bondInHand(map, op);
  const cut = bond && cutInHand(map, state, bond, atHand.warm ?? null);
  const doing = bondWork(map, state, op, cut);
  const inHand = doing === 'cut' ? edgeInHand(state, bond!, cut!, atHand.warm ?? null) : null;
  const isHot = doing === 'heating' || doing === 'to-heat' || inHand?.isStiff;
  const of = (each: Op, edge?: string) => cautionFor(map, each, dead, unit, edge);
  const heat = isHot ? [of({ ...op, kind: 'procedure', name: 'heat' })] : [];
  const own = isHot && !inHand ? [] : [of(op, inHand?.edge.segment)];
  const plan = [...ahead!.plan.strip, ...ahead!.plan.rebuild];
  const earlier = plan.slice(
    0,
    Math.max(
      0,
      plan.findIndex(({ id }) => id === op.id),
    ),
  );
  const wasTold = (text: string) => earlier.some((each) => each.stage === op.stage && of(each) === text);
  return [...new Set([...own, ...heat])].flatMap((text) => {
    if (text === null) return [];
    const isKnown = wasTold(text);
    return [{ text: isKnown ? firstSentence(text) : text, isKnown }];
  });
}

/** *The battery is still connected.* */
function firstSentence(text: string): string {
  return /^.*?[.](?=\s|$)/.exec(text)?.[0] ?? text;
}
