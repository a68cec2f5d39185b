/** What is in hand is named in large words, all else in small ones; none are smaller. Pixels of the screen. */
export const NAME_PX = 16;
export const WORD_PX = 13;
/** A mark that can be pressed with a finger beside it. */
export const MARK_PX = 28;
/** A number in its ring, or the sign of a way up or down. */
export const RING_PX = 30;

/** How wide a letter is on the average, of its size: rather too wide. */
const LETTER = 0.58;

/** How wide words are drawn at most, px. */
export function wordsWide(words: string, size_px: number): number {
  return words.length * size_px * LETTER;
}
