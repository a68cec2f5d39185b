import { createRequire } from 'node:module';
import pdfmake from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces.js';

/** Points in a millimetre. */
const PT_mm = 72 / 25.4;

// the package brings an open font with more letters than a reader of PDF has of its own
const { Roboto } = createRequire(import.meta.url)('pdfmake/fonts/Roboto.js') as { Roboto: Record<string, string> };
pdfmake.setFonts({ Roboto });
// pages are drawn from what is handed in: nothing is fetched, and nothing but the font is read
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => Object.values(Roboto).includes(path));

export interface Sheet {
  /** a drawing of the whole sheet, in millimetres */
  readonly svg: string;
  readonly width: number;
  readonly height: number;
}

/** Drawings as the pages of a PDF, each as large as its sheet. */
export async function pdfOf(title: string, sheets: readonly Sheet[]): Promise<Uint8Array> {
  const [first] = sheets;
  return pdfFrom({
    pageSize: { width: points(first?.width ?? 210), height: points(first?.height ?? 297) },
    pageMargins: 0,
    defaultStyle: { font: 'Roboto' },
    info: { title },
    compress: false,
    content: sheets.map(({ svg, width, height }, at) => ({
      svg,
      width: width * PT_mm,
      height: height * PT_mm,
      absolutePosition: { x: 0, y: 0 },
      ...(at > 0 ? { pageBreak: 'before' as const } : {}),
    })),
  });
}

/** A document as a PDF: its words can be selected, its font is in it. */
export async function pdfFrom(document: TDocumentDefinitions): Promise<Uint8Array> {
  return new Uint8Array(await pdfmake.createPdf(document).getBuffer());
}

/** To a hundredth, as the sizes of paper are written. */
function points(mm: number): number {
  return Math.round(mm * PT_mm * 100) / 100;
}
