export {
  type Asked,
  chosenPart,
  type DeskPart,
  isAccepted,
  isBoard,
  type PartCondition,
  type PartDecision,
  partVerdict,
  returnBy,
} from './desk-part.ts';
export { comparePieces, type Pieces, placesOn } from './compared-pieces.ts';
export { byUrgency, type DeskVerdict, deskVerdict } from './desk-verdict.ts';
