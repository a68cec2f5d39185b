export { checkPhoto, MOST_PHOTO_BYTES, MOST_PIXELS, PhotoError, type PhotoFacts, PHOTO_TYPES } from './photo.ts';
