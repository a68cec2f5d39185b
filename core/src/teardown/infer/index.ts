export { inferMap, type InferredMap } from './infer-map.ts';
export { mapAsTold, mapToKeep, openQuestions } from './map-as-told.ts';
