export { ownTimes } from './own-times.ts';
export { samplesOf, type TimeSample } from './samples.ts';
export { timesTaken } from './taken.ts';
