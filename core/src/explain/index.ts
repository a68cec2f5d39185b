export { type Explanation, explain, nameOf, priorOf } from './explain.ts';
export { expectedSeconds, type Look, searchOrder } from './search-order.ts';
