export { misshapen, misshapenAt, pathTo } from './misshapen.ts';
export { asData, notInMap, type Problem, problemText, wrong } from './problem.ts';
export { Refusal } from './refusal.ts';
