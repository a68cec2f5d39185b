export { askedInPreparing } from './asked-in-preparing.ts';
export { BESIDE_PREPARING } from './beside-preparing.ts';
export { type Draft, NO_DRAFT, type Preparing } from './preparing.ts';
