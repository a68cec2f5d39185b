export { checkDeviceMap, type MapCheck, pathOf } from './check.ts';
export { changedUnderWay } from './under-way.ts';
export type { Finding } from './finding.ts';
