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
export { type Containers, containersFor, type ContainersRequest, containersRequest } from './containers.ts';
export { CALIPER_SD_MM, SURE } from './screw-match.ts';
export { matchRequest, type MatchRequest, matchScrews, type ScrewMatch } from './screw-match.ts';
export { type SwapCell, swapped, swapRequest, type SwapRequest, swapTable } from './swap-table.ts';
