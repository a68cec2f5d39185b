export { type Trial, whereToTry, type WhereToTry } from './where-to-try.ts';
export { COLOUR_FIELDS, type Instrument, instrumentFor } from './instruments.ts';
export { trialNow, type TrialNow } from './trial.ts';
export { worthTrying } from './worth-trying.ts';
