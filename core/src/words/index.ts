export { type Warning, replacementWarnings, transplantWarnings, workWarnings } from './told.ts';
export { jointKind, jointName, partName, thingName } from './names.ts';
export { opTitle, explained } from './reasons.ts';
export { cautionFor } from './cautions.ts';
export { capital, plural } from './english.ts';
export { isGate, opLine, opWords, slideWords } from './op-words.ts';
export { jointWords } from './joint-words.ts';
export { edgeName, placeWords } from './places.ts';
export { whyNow } from './why.ts';
