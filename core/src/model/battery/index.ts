export { type Pack, packOf, type PackRequest, packRequest, runDown, transportHints } from './pack.ts';
export { type ChargeReading, foreseen } from './foreseen.ts';
