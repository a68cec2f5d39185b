export { type Below, belowRim, rimPlaces } from './below.ts';
export { fitRim, type RimFit, type RimKind, type RimPoint, type RimRequest, rimRequest } from './rim.ts';
