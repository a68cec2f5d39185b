export { ORDER_RULES, type OrderRule } from './rules.ts';
export { type Chosen } from './needed.ts';
export { isLater, type Phases, phasesOf, STRIP_PHASES } from './phases.ts';
export { type StripOrder, stripOrder, type StripTask } from './strip-order.ts';
export { rebuildOrder } from './rebuild-order.ts';
export { placeOfPart } from './place.ts';
