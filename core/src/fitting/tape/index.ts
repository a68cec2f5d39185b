export { type Cutting, cutFrom, type Roll } from './cutting.ts';
export { beadVolume_uL, type Strip, stripsOfBond } from './strips.ts';
export { type Taped, tapeFor, type TapeRequest, tapeRequest } from './tape-request.ts';
