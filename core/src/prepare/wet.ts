import type { Op } from '../drafts/index.ts';

const common = { kind: 'procedure', tool: null, face: null, stage: 'prepare', notBefore: [] } as const;

/** Once the battery is off: washed, dried and tried. Times are guesses; what dries slowly is given longer. */
export const WET_OPS: readonly Op[] = [
  {
    ...common,
    id: 'wash',
    name: 'wash',
    seconds: 600,
    why: 'Liquid goes on eating at the board for as long as it stays.',
    whyNotEarlier: 'After the battery is off.',
  },
  {
    ...common,
    id: 'air-dry',
    name: 'air-dry',
    seconds: 30,
    wait_s: 7200,
    why: 'Under shields and connectors it dries last. Warm air, no heat near the cell.',
    whyNotEarlier: 'After it is washed.',
  },
  {
    ...common,
    id: 'try',
    name: 'try',
    seconds: 180,
    why: 'Only a try tells whether the board can stay.',
    whyNotEarlier: 'After it is dry.',
  },
];
