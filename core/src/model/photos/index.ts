export { foundCorners } from './find-corners.ts';
export { type Corner, cssOf, seen, type View, viewOf } from './four-corners.ts';
export { cornersOf, type Pixels, straightened } from './straighten.ts';
export {
  MOST_PHOTO_BYTES,
  MOST_PIXELS,
  PhotoError,
  type PhotoFacts,
  PHOTO_TYPES,
  takePhoto,
  typeOf,
  type TakenPhoto,
} from './photo.ts';
