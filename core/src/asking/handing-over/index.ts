export { askedInHandingOver } from './asked-in-handing-over.ts';
export { BESIDE_HANDING_OVER } from './beside-handing-over.ts';
