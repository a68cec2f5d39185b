import { partsOff, type ToldJoint } from '../../teardown/record/index.ts';
import { asChoices, NOTHING_ASKED, type Question, withKeys } from '../question/index.ts';
import { cameOff, freeId, type TakingApart } from './telling.ts';

/** Before anything is cut beside a cell that is in, its charge is known. */
export function chargeFirst({ so, state }: TakingApart): Question | null {
  const off = partsOff(so);
  const isIn = [...so.parts.values()].some(({ id, kind }) => kind === 'battery' && !off.has(id));
  if (!isIn || state.charges.length > 0 || state.chargeDecided) return null;
  return {
    ...NOTHING_ASKED,
    id: 'charge-first',
    place: 'Glue',
    title: 'How full is the battery?',
    detail: 'Something is cut beside it',
    hint: 'Below a quarter there is less to burn if the blade slips (common practice).',
    field: { label: 'Charge', kind: 'figure', unit: '%', least: 0, most: 100, cure: 'Give it in per cent, 0 to 100.' },
    answers: withKeys([
      {
        id: 'read',
        label: 'So full',
        weight: 'main',
        gives: {
          kind: 'say',
          events: [{ type: 'charge', data: { charge: 0, source: 'typed' } }],
          next: { at: 'glue' },
        },
        takes: { name: 'charge', factor: 0.01 },
      },
      {
        id: 'dead',
        label: 'It can not be read',
        weight: 'warning',
        gives: {
          kind: 'say',
          events: [
            { type: 'decision', data: { about: 'charge', text: 'It does not start: its charge can not be read' } },
          ],
          next: { at: 'glue' },
        },
      },
    ]),
  };
}

const GLUES: readonly {
  readonly id: string;
  readonly label: string;
  readonly joint: Omit<ToldJoint, 'id' | 'type'>;
}[] = [
  { id: 'heated', label: 'Heated, then cut', joint: { style: 'perimeter', heat: true } },
  { id: 'cut', label: 'Cut cold', joint: { style: 'perimeter' } },
  { id: 'tabs', label: 'Pulled by its tabs', joint: { style: 'tabs' } },
  { id: 'soaked', label: 'Soaked with solvent', joint: { style: 'pad', solvent: { soak_s: 180 } } },
  { id: 'pad', label: 'Peeled off a pad', joint: { style: 'pad' } },
  { id: 'tape', label: 'Tape', joint: { style: 'tape' } },
  { id: 'strap', label: 'Strap', joint: { style: 'strap' } },
  { id: 'paste', label: 'Paste or gasket', joint: { style: 'thermal' } },
];

/** How it was glued, and how it came undone. */
export function glueAsked(now: TakingApart): Question {
  const { so } = now;
  return {
    ...NOTHING_ASKED,
    id: `glue ${so.steps.length}`,
    place: 'Glue',
    title: 'How did it come undone?',
    hint: 'It holds what comes off next, until you say otherwise.',
    cautions: [
      {
        text: 'Glass splinters: eyes covered. No open solvent near heat. No blade deeper than a few millimetres where nobody knows what lies behind.',
        isKnown: so.steps.some((step) => step.kind === 'release' && so.joints.get(step.joint)?.type === 'bond'),
      },
    ],
    choices: asChoices(
      GLUES.map(({ id, label, joint }) => ({
        id,
        label,
        gives: cameOff(now, { joint: { ...joint, id: freeId(so.joints, 'glue'), type: 'bond' } }),
      })),
    ),
  };
}

/** Solder that came off. */
export function solderGives(now: TakingApart) {
  return cameOff(now, { joint: { id: freeId(now.so.joints, 'solder'), type: 'solder' } });
}
