import { createRequire } from 'node:module';
import type { PickCard } from '@nibrel/core/cut';
import pdfmake from 'pdfmake';
import { PAGE, pickCardSvg } from './pick-card.ts';

/** Points in a millimetre. */
const PT_mm = 72 / 25.4;

// the package brings an open font with more letters than a reader of PDF has of its own
const { Roboto } = createRequire(import.meta.url)('pdfmake/fonts/Roboto.js') as { Roboto: Record<string, string> };
pdfmake.setFonts({ Roboto });
// a card is drawn from the map alone: nothing is fetched, and nothing but the font is read
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => Object.values(Roboto).includes(path));

/** The same page as a PDF. */
export async function pickCardPdf(card: PickCard): Promise<Uint8Array> {
  const pdf = pdfmake.createPdf({
    pageSize: 'A4',
    pageMargins: 0,
    defaultStyle: { font: 'Roboto' },
    info: { title: `${card.device}: pick card` },
    compress: false,
    content: [
      {
        svg: pickCardSvg(card),
        width: PAGE.width * PT_mm,
        height: PAGE.height * PT_mm,
        absolutePosition: { x: 0, y: 0 },
      },
    ],
  });
  return new Uint8Array(await pdf.getBuffer());
}
