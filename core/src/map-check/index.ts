export { checkDeviceMap, type MapCheck, pathOf } from './check.ts';
export type { Finding } from './finding.ts';
