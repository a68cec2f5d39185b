export { inferMap, type InferredMap } from './infer-map.ts';
export { mapAsTold, mapToKeep } from './map-as-told.ts';
