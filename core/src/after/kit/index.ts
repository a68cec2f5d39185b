export { type Kit, kitFor, type SupplyLine, type ToolLine } from './kit.ts';
export { isForSealing, type Supply, supplyOf, usedBy } from './kit-supplies.ts';
export { usedIn } from './used.ts';
