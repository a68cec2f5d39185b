export { type Drawn, type Picture, pictureOf } from './picture.ts';
export { stepPicture } from './of-step.ts';
export { farAt, nameAt, type Turning } from './marks.ts';
export { type Move, type StayingSide, stayingSide } from './part-moves.ts';
export type { Label } from './placed-names.ts';
export { MARK_PX, NAME_PX, RING_PX, WORD_PX } from './pixels.ts';
export type { Standing } from './stands-at.ts';
export type { Size } from './view-box.ts';
