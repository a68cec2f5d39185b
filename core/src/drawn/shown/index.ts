export { faceOf, type Shown, shownOf, type StandsOpen } from './shown.ts';
export { alone, insideOf, type OnTheMat, onTheMat } from './on-the-mat.ts';
