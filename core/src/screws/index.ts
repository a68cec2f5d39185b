export {
  counts,
  type Counts,
  EMPTY_LEDGER,
  findAgain,
  foundSpare,
  keyOf,
  leaveOut,
  type Ledger,
  looseScrewsOf,
  lose,
  missingFor,
  onMatByKind,
  putBack,
  type Screw,
  takenOut,
} from './ledger.ts';
export { screwLetters, type ScrewLetter } from './letters.ts';
