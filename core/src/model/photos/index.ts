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
