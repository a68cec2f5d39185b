export { isSameName, nameKey, nameProblem, nameSchema } from './names.ts';
