import { type MatPlace, type MatSheet, PAPERS } from '@nibrel/core/screws/screw-mat';
import { codeOf } from './code.ts';
import type { Sheet } from './pdf.ts';
import { n, text } from './svg.ts';

/** What a mat is printed for. */
export interface MatOf {
  readonly device: string;
  /** of the repair; a mat of the device alone has none */
  readonly job?: { readonly title: string; readonly url: string };
}

const MARGIN = 10;
const BAR_mm = 50;
const CODE_mm = 20;

/** A mat as drawings, one for each sheet: printed at 100 %, a screw lies on its own outline. */
export function screwMatSheets(sheets: readonly MatSheet[], of: MatOf): Sheet[] {
  return sheets.map((sheet, index) => {
    const { width, height } = PAPERS[sheet.paper];
    const svg = [
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}" font-family="Roboto, Helvetica, Arial, sans-serif">`,
      `<rect width="${width}" height="${height}" fill="white"/>`,
      text(MARGIN, 15, 5.4, `${of.device}: screw mat${of.job ? `, ${of.job.title}` : ''}`, 'bold'),
      text(MARGIN, 21, 3.4, `${sheet.title}. ${spreadWords(sheet)}`),
      text(
        MARGIN,
        26,
        3.4,
        'Print at 100 %, no fitting to the page. Lay each screw on its outline: one that is longer or shorter lies elsewhere.',
      ),
      sheet.device ? deviceOf(sheet) : '',
      ...sheet.places.map(placeOf),
      footOf(sheet, of, index + 1, sheets.length),
      '</svg>',
    ].join('');
    return { svg, width, height };
  });
}

function spreadWords({ spread, device }: MatSheet): string {
  if (!device) return 'These found no room near their holes.';
  return spread === 1
    ? 'Places lie as on the device.'
    : `Places are spread ${spread} times, the screws are drawn as long as they are.`;
}

/** The outline, as far as it lies on this sheet. */
function deviceOf({ device, area }: MatSheet): string {
  const { x, y, width, height, corner } = device!;
  const clip = `<clipPath id="area"><rect x="${n(area.x)}" y="${n(area.y)}" width="${n(area.w)}" height="${n(area.h)}"/></clipPath>`;
  return `${clip}<g clip-path="url(#area)"><rect x="${n(x)}" y="${n(y)}" width="${n(width)}" height="${n(height)}" rx="${n(corner)}" fill="none" stroke="#999999" stroke-width="0.3"/></g>`;
}

function placeOf({ letter, length, head, shank, box, at, hole }: MatPlace): string {
  const neck = at.x + head / 2;
  const leader = hole
    ? `<path d="M${n(hole.x)} ${n(hole.y)}L${n(at.x)} ${n(at.y)}" stroke="#777777" stroke-width="0.15" stroke-dasharray="0.8 0.6" fill="none"/><circle cx="${n(hole.x)}" cy="${n(hole.y)}" r="0.5" fill="#777777"/>`
    : '';
  return (
    leader +
    `<circle cx="${n(at.x)}" cy="${n(at.y)}" r="${n(head / 2)}" fill="white" stroke="black" stroke-width="0.25"/>` +
    `<rect x="${n(neck)}" y="${n(at.y - shank / 2)}" width="${n(length)}" height="${n(shank)}" fill="none" stroke="black" stroke-width="0.25"/>` +
    text(box.x + 0.6, at.y + 1.4, 4, letter, 'bold')
  );
}

function footOf({ paper }: MatSheet, { job }: MatOf, page: number, pages: number): string {
  const { width, height } = PAPERS[paper];
  const y = height - MARGIN - 8;
  return [
    `<path id="bar" d="M${MARGIN} ${n(y)}l${BAR_mm} 0" stroke="black" stroke-width="0.4" fill="none"/>`,
    `<path d="M${MARGIN} ${n(y - 2)}l0 4M${MARGIN + BAR_mm} ${n(y - 2)}l0 4" stroke="black" stroke-width="0.4" fill="none"/>`,
    text(MARGIN, y + 6, 3.3, `This bar is ${BAR_mm} mm. If it is not, print again. Sheet ${page} of ${pages}.`),
    job ? codeOf(job.url, width - MARGIN - CODE_mm, height - MARGIN - CODE_mm, CODE_mm) : '',
    job ? text(width - MARGIN - CODE_mm - 2, height - MARGIN - 1, 3, 'Opens the repair', 'normal', 'end') : '',
  ].join('');
}
