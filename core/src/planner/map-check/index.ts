export { checkDeviceMap, type MapCheck } from './check.ts';
export { changedUnderWay } from './under-way.ts';
