export { inferMap, type InferredMap } from './infer-map.ts';
export { taught } from './taught.ts';
export { mapAsTold, mapToKeep, openQuestions } from './map-as-told.ts';
