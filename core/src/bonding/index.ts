export { bonded, type Bonded, type BondRequest, bondRequest } from './bonding.ts';
