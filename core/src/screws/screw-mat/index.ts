export { type Area, type Paper, PAPERS } from './paper.ts';
export { type MatPlace, type MatSheet, screwMat } from './screw-mat.ts';
