export { checkNumbers, type CheckedNumber, checkDigit, identityRequest, type Numbers } from './number.ts';
export { type BoardFacts, type RegistryAnswer, REGISTRY_ANSWERS, boardVerdict, type PartVerdict } from './verdict.ts';
