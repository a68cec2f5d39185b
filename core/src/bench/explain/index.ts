export { type Explanation, explain, nameOf, priorOf, suspected, unexpected } from './explain.ts';
export { expectedSeconds, type Look, searchOrder } from './search-order.ts';
