import qrcode from 'qrcode';
import { n } from './svg.ts';

/** A QR code (ISO/IEC 18004) as squares. */
export function codeOf(url: string, x: number, y: number, wide: number): string {
  const { size, data } = qrcode.create(url, { errorCorrectionLevel: 'M' }).modules;
  const side = wide / size;
  const squares = Array.from(data).flatMap((isDark, at) =>
    isDark
      ? [`M${n(x + (at % size) * side)} ${n(y + Math.floor(at / size) * side)}h${n(side)}v${n(side)}h${n(-side)}z`]
      : [],
  );
  return `<path id="code" d="${squares.join('')}" fill="black"/>`;
}
