import type { DeviceMap } from '@nibrel/core/device-map';
import type { Plan, Policy } from '@nibrel/core/plan';
import { capital, duration } from '../app/format.ts';

export interface Option {
  readonly value: string;
  readonly label: string;
  /** what it risks */
  readonly risk: string;
}

/** A question on which practitioners disagree, with its schools. */
export interface Question {
  readonly key: keyof Policy;
  readonly label: string;
  readonly options: readonly Option[];
  /** asked last, and out of the way until wanted */
  readonly minor?: boolean;
}

const QUESTIONS: readonly Question[] = [
  {
    key: 'display',
    label: 'Display',
    options: [
      { value: 'auto', label: 'the cheaper', risk: '' },
      { value: 'taken-off', label: 'taken off', risk: 'its connectors are plugged once more' },
      { value: 'on-flexes', label: 'on its flexes', risk: 'the flexes stay under strain' },
    ],
  },
  {
    key: 'heat',
    label: 'Heat',
    options: [
      { value: 'map', label: 'mapped', risk: '' },
      { value: 'plate', label: 'plate', risk: 'slow, even' },
      { value: 'pad', label: 'pad', risk: 'slow, even' },
      { value: 'air', label: 'hot air', risk: 'quick, uneven: can overheat the cell' },
      { value: 'pack', label: 'pack', risk: 'cools as it works' },
    ],
  },
  {
    key: 'batteryWhilePrying',
    label: 'Battery while prying',
    options: [
      { value: 'in', label: 'left in', risk: 'the pick passes near the cell' },
      { value: 'out', label: 'taken out first', risk: 'the cell is handled once more' },
    ],
  },
  {
    key: 'test',
    label: 'Test',
    options: [
      { value: 'before-and-after', label: 'before and after sealing', risk: 'the battery is live with the lid off' },
      { value: 'after', label: 'only after', risk: 'a fault found then costs a new seal and opening again' },
    ],
  },
  {
    key: 'tools',
    minor: true,
    label: 'After isolation',
    options: [
      { value: 'plastic', label: 'plastic only', risk: 'clumsy on small snaps' },
      { value: 'fine-metal', label: 'fine metal allowed', risk: 'a slip scratches a board' },
    ],
  },
  {
    key: 'tightening',
    minor: true,
    label: 'Tightening',
    options: [
      { value: 'torque', label: 'measured', risk: 'needs a torque driver' },
      { value: 'snug', label: 'snug', risk: 'a boss can strip' },
    ],
  },
];

/** The questions that mean something on this device. */
export function questionsFor(map: DeviceMap): Question[] {
  const hot = map.joints.some((each) => each.type === 'bond' && each.heat);
  const endangers = map.joints.some((each) => each.type === 'bond' && each.endangers?.length);
  return QUESTIONS.filter(({ key }) => {
    if (key === 'heat') return hot;
    if (key === 'batteryWhilePrying') return endangers;
    if (key === 'display') return map.parts.some((each) => each.kind === 'display' && each.opens);
    return true;
  });
}

/** What another school would cost beside the plan as it stands, with its risk, in one sentence. */
export function costs(other: Option, plan: Plan, instead: Plan | null): string {
  const name = capital(other.label);
  if (!instead) return `${name}: no plan this way.`;
  if (sameWork(plan, instead)) return `${name}: no difference on this device.`;
  const total = (each: Plan) => each.seconds.strip + each.seconds.rebuild + each.seconds.waiting;
  const more = Math.round(total(instead) - total(plan));
  const cost = more === 0 ? 'the same time' : more > 0 ? `${duration(more)} more` : `${duration(-more)} less`;
  return `${name}: ${cost}${other.risk ? `, ${other.risk}` : ''}.`;
}

/** The same operations with the same tools, whatever their order. */
function sameWork(a: Plan, b: Plan): boolean {
  const work = (plan: Plan) =>
    [...plan.strip, ...plan.rebuild]
      .map((op) => `${op.id} ${op.tool} ${op.wait_s}`)
      .toSorted()
      .join();
  return work(a) === work(b);
}
