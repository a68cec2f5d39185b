import type { DeviceMap } from '../device-map/index.ts';
import { withAllPredecessors, type Draft, type Op } from '../drafts/index.ts';
import { thingName } from './names.ts';

const PROCEDURES: Readonly<Record<NonNullable<Op['name']>, string>> = {
  'power-off': 'power off',
  film: 'lay film over',
  'film-off': 'take the film off',
  heat: 'heat',
  soak: 'let solvent soak into',
  vent: 'air the bench',
  clean: 'scrape and clean',
  dry: 'dry',
  lay: 'lay the new bond',
  press: 'press',
  cure: 'cure',
  count: 'count the screws',
  renew: 'renew',
  'power-on': 'first start',
  test: 'test',
  transplant: 'replace the cell inside',
  agree: 'agree with the owner',
  'run-down': 'run the battery down',
  'charge-up': 'charge the battery',
  prepare: 'prepare the bench',
  look: 'look behind the edge',
  tape: 'tape the cracks of',
  wash: 'wash and brush out the liquid',
  'air-dry': 'dry',
  try: 'try it',
};

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
  const verb = op.kind === 'procedure' ? PROCEDURES[op.name!] : PHYSICAL[op.kind];
  const thing = op.joint ?? op.part;
  if (op.name === 'film' && thing === undefined) return 'lay film over the glass';
  return thing === undefined ? verb : `${verb} ${thingName(map, thing)}`;
}

/** Puts the drafts in the order found, with what precedes each, why it is needed, and why it may not be earlier. */
export function explained(map: DeviceMap, drafts: readonly Draft[], order: readonly string[], purpose: string): Op[] {
  const tasks = new Map(withAllPredecessors(drafts.map(({ task }) => task)).map((task) => [task.id, task]));
  const byId = new Map<string, Op>(drafts.map(({ op }) => [op.id, op]));
  const position = new Map(order.map((id, index) => [id, index]));
  const directlyBefore = (id: string) => {
    const all = [...tasks.get(id)!.after];
    const implied = new Set(all.flatMap((each) => [...tasks.get(each)!.after]));
    return all.filter((each) => !implied.has(each));
  };
  const needing = new Map<string, string>();
  for (const id of [...order].reverse()) {
    for (const each of directlyBefore(id)) needing.set(each, id);
  }
  return order.map((id) => {
    const op = byId.get(id)!;
    const next = needing.get(id);
    const waits = directlyBefore(id).sort((a, b) => position.get(b)! - position.get(a)!);
    const notBefore = [...tasks.get(id)!.after].sort((a, b) => position.get(a)! - position.get(b)!);
    return {
      ...op,
      why: next === undefined ? `Needed to ${purpose}.` : `Needed to ${opTitle(map, byId.get(next)!)}, to ${purpose}.`,
      whyNotEarlier:
        waits.length === 0
          ? 'Nothing has to come before it.'
          : `After: ${waits
              .slice(0, 4)
              .map((each) => opTitle(map, byId.get(each)!))
              .join('; ')}${waits.length > 4 ? ` and ${waits.length - 4} more` : ''}.`,
      notBefore,
    };
  });
}
