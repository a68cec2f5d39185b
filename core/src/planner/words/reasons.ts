import type { DeviceMap } from '../../model/device-map/index.ts';
import { directOnly, withAllPredecessors, type Draft, type Op } from '../drafts/index.ts';
import type { OrderRule } from '../sequence/index.ts';
import { procedureVerb } from './procedure-words.ts';
import { thingName } from './thing-names.ts';

const PHYSICAL = {
  release: 'release',
  open: 'open',
  lift: 'lift off',
  fit: 'fit',
  close: 'close',
  make: 'make',
} as const;

/** *lift off Connector lid*, *heat Display: seal* */
export function opTitle(map: DeviceMap, op: Pick<Op, 'kind' | 'name' | 'joint' | 'part'>): string {
  const verb = op.kind === 'procedure' ? procedureVerb(op) : PHYSICAL[op.kind];
  const thing = op.joint ?? op.part;
  if (op.name === 'film' && thing === undefined) return 'lay film over the glass';
  return thing === undefined ? verb : `${verb} ${thingName(map, thing)}`;
}

/** Why a rule of order keeps an operation until then, as one technician says it to another. */
const RULES: Readonly<Record<OrderRule, string>> = {
  'removed-first': 'First out: trays and cards, before anything is warmed, cut or opened.',
  'dead-first': 'Dead first: a screw that slips on a live board shorts it.',
  'display-off': 'Display off first: nothing is worked on beneath one that stands.',
  'part-by-part': 'One part is finished before the next is begun.',
  follow: 'First what was just uncovered.',
  mirror: 'In reverse: what came off last goes on first.',
  'dead-long': 'Power last: everything else goes in while it is dead.',
  'display-last': 'Display last: nothing is fitted beneath one that stands.',
  seal: 'The seal goes on the bare frame, and its liner stays on until the test is passed.',
  film: 'Off before it would be sealed in.',
  count: 'Counted first: a screw that lies inside shorts it.',
  test: 'Tested before it is closed for good.',
};

/** Puts the drafts in the order found, with what precedes each, why it is needed, and why it may not be earlier. */
export function explained(
  map: DeviceMap,
  drafts: readonly Draft[],
  order: readonly string[],
  ruledBy: ReadonlyMap<string, OrderRule>,
  purpose: string,
): Op[] {
  const tasks = new Map(withAllPredecessors(drafts.map(({ task }) => task)).map((task) => [task.id, task]));
  const byId = new Map<string, Op>(drafts.map(({ op }) => [op.id, op]));
  const position = new Map(order.map((id, index) => [id, index]));
  const direct = new Map(order.map((id) => [id, directOnly(tasks, tasks.get(id)!)]));
  const directlyBefore = (id: string) => direct.get(id)!;
  const needing = new Map<string, string>();
  for (const id of [...order].reverse()) {
    for (const each of directlyBefore(id)) needing.set(each, id);
  }
  return order.map((id) => {
    const op = byId.get(id)!;
    const next = needing.get(id);
    const rule = ruledBy.get(id);
    const notBefore = [...tasks.get(id)!.after].sort((a, b) => position.get(a)! - position.get(b)!);
    return {
      ...op,
      why: next === undefined ? `Needed to ${purpose}.` : `Needed to ${opTitle(map, byId.get(next)!)}, to ${purpose}.`,
      whyNotEarlier: rule ? RULES[rule] : waitsFor(map, byId, directlyBefore(id), position),
      notBefore,
      ...(rule ? { ruledBy: rule } : {}),
      ...(next === undefined ? {} : { serves: next }),
    };
  });
}

function waitsFor(
  map: DeviceMap,
  byId: ReadonlyMap<string, Op>,
  before: readonly string[],
  position: ReadonlyMap<string, number>,
): string {
  if (before.length === 0) return 'Nothing has to come before it.';
  const latest = before.toSorted((a, b) => position.get(b)! - position.get(a)!);
  const named = latest.slice(0, 4).map((each) => opTitle(map, byId.get(each)!));
  return `After: ${named.join('; ')}${latest.length > 4 ? ` and ${latest.length - 4} more` : ''}.`;
}
