export { jointById, partById } from './by-id.ts';
export { flexGoesTo, middleOfEdge } from './flex-goes.ts';
export type { GuessedEntry, MapOrigin } from './origin.ts';
export { opposite, seenEdge, seenWay, seenX } from './seen.ts';
export * from './types.ts';
export { deviceMapSchema, MAX_JOINTS, MAX_PARTS } from './schema.ts';
