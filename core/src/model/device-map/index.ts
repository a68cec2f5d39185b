export { jointById, partById } from './by-id.ts';
export * from './types.ts';
export { deviceMapSchema, MAX_JOINTS, MAX_PARTS } from './schema.ts';
