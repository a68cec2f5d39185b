export { changesMap, type Going, goingOf, goingOn, mechanismAsTold, toldIn } from './going.ts';
export { repairLines } from './repair-lines.ts';
export { foldJob, foldOn, withEvent } from './fold.ts';
