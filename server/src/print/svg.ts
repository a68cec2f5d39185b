/** Words on a page, in millimetres. */
export function text(x: number, y: number, size: number, words: string, weight = 'normal', anchor = 'start'): string {
  return `<text x="${n(x)}" y="${n(y)}" font-size="${size}" font-weight="${weight}" text-anchor="${anchor}">${escaped(words)}</text>`;
}

/** Words that run upward. */
export function turned(x: number, y: number, size: number, words: string): string {
  return `<text transform="translate(${n(x)} ${n(y)}) rotate(-90)" font-size="${size}" text-anchor="middle">${escaped(words)}</text>`;
}

/** A length to a thousandth of a millimetre. */
export function n(value: number): string {
  return String(Math.round(value * 1000) / 1000);
}

function escaped(words: string): string {
  return words.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
}
