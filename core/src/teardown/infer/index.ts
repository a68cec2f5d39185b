export { inferMap, type InferredMap } from './infer-map.ts';
