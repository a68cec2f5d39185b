export { type BenchItem, benchItems } from './bench-items.ts';
export { type ChargeNeed, chargeNeed, cutsNearCell, secondsDown, secondsUp } from './charge.ts';
export { crackedGlass } from './cracks.ts';
export { type PinHoles, pinHoles } from './pin-holes.ts';
export { agreeOp, chargeOp, prepareOp, tapeOp, withTape } from './ops.ts';
export { type OwnerItem, ownerMustKnow } from './owner.ts';
export { WET_OPS } from './wet.ts';
export { type Cost, isDelicate, type WhileOpen, whileOpen } from './while-open.ts';
export { certainCuts, tellAnyhow, wayIn } from './way-in.ts';
