export { changesMap, type Going, goingOf, goingOn, mechanismAsTold, toldIn } from './going.ts';
export { foldJob, foldOn, withEvent } from './fold.ts';
