export { aloud } from './aloud.ts';
export { CHARGE_FIELD, CHARGE_READ } from './charge-read.ts';
export { given } from './given.ts';
export { NOTHING_ASKED } from './nothing-asked.ts';
export { isOpen, nextAsked, type Turns, type Turn } from './turn.ts';
export {
  type Answer,
  type AskedField,
  type Gives,
  type Keyless,
  type Line,
  NEW_PART,
  type Page,
  type Pick,
  type Question,
  saying,
  type Sheet,
  type Takes,
  type Telling,
  type Told,
  type Wait,
  type Weight,
} from './question.ts';
export { asChoices, byLetter, withKeys } from './with-keys.ts';
