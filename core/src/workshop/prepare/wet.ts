import { type Op, procedureOp } from '../../planner/drafts/index.ts';

/** Once the battery is off: washed, dried and tried. Times are guesses; what dries slowly is given longer. */
export const WET_OPS: readonly Op[] = [
  procedureOp({
    name: 'wash',
    stage: 'prepare',
    seconds: 600,
    why: 'Liquid goes on eating at the board for as long as it stays.',
    whyNotEarlier: 'After the battery is off.',
  }),
  procedureOp({
    name: 'air-dry',
    stage: 'prepare',
    seconds: 30,
    wait_s: 7200,
    why: 'Under shields and connectors it dries last. Warm air, no heat near the cell.',
    whyNotEarlier: 'After it is washed.',
  }),
  procedureOp({
    name: 'try',
    stage: 'prepare',
    seconds: 180,
    why: 'Only a try tells whether the board can stay.',
    whyNotEarlier: 'After it is dry.',
  }),
];
