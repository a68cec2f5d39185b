export { type Airing, airing, soakProblem } from './airing.ts';
