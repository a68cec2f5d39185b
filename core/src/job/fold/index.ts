export { foldJob, foldOn, withEvent } from './fold.ts';
