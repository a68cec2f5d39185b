export { askedWhileTakenApart } from './asked-what-came-off.ts';
export { layersUp, ROOT, type TakingApart } from './telling.ts';
export { jointLabel, partLabel, stepLabel } from './told-words.ts';
