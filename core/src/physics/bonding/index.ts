export { ASKED_kPa, type Press, pressOf } from './pressing.ts';
export { bonded, type Bonded, type BondRequest, bondRequest } from './bonding.ts';
export { secondsToStrength, strengthAfter } from './strength.ts';
