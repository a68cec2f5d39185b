export { type ComingOut, comingOut } from './coming-out.ts';
export { type Doubt, type InDoubt, judgedDoubt } from './doubt.ts';
export { type Harm, harmOf, harmOfLength, type Hurts } from './harm.ts';
export { type Hole, holesOf, type KindHoles, kindsIn } from './holes.ts';
export { type Keeping, keepings, type Kept, type LookAlike, lookAlikes } from './keeping.ts';
export { BY_CALIPER, takenFor, type Tells } from './look-alike.ts';
export { type LostScrew, lostScrew } from './lost.ts';
export { type Loose, type Returned, solveSpill, type SpillSolved } from './spill.ts';
export { turnsOf } from './turns.ts';
