export {
  type Warning,
  lostFunctions,
  replacementWarnings,
  transplantWarnings,
  untriedWarnings,
  workWarnings,
} from './told.ts';
export { bondName, functionName, heldName, jointKind, jointName, partName, thingName } from './thing-names.ts';
export { opTitle, explained } from './reasons.ts';
export { cautionFor } from './cautions.ts';
export { batteryWords } from './battery-words.ts';
export { capital, countdown, duration, lower, plural } from './english.ts';
export { isGate, opLine, opWords, slideWords } from './op-words.ts';
export { bitMark } from './bit-marks.ts';
export { jointWords, spokenName } from './joint-words.ts';
export { edgeName, placeOfJoint, placeWords, tabName } from './places.ts';
export { leansOn, sureness } from './guess-words.ts';
export { whyNow } from './why.ts';
export { waterWords } from './water.ts';
export { pointName, pointPlace } from './point-names.ts';
export { rimWords } from './rim-words.ts';
