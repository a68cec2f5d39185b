import { unfolds } from './png.ts';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Report } from '@nibrel/core/after/report';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { codeOf } from './code.ts';
import { pdfFrom } from './pdf.ts';
import { n } from './svg.ts';

/** What a report is printed from. */
export interface ReportOf {
  readonly map: DeviceMap;
  readonly report: Omit<Report, 'isNew' | 'wasOut'> & {
    readonly isNew: readonly string[];
    readonly wasOut: readonly string[];
  };
  /** of the repair, for its code */
  readonly url: string;
  /** days as they are written in the workshop */
  readonly takenIn: string;
  readonly finished: string;
  /** to whom it went, and when; empty while it is here */
  readonly handedOver: string;
  /** JPEG or PNG, as data addresses */
  readonly pictures: readonly Picture[];
  /** what was chosen and is not here, each with why */
  readonly leftOut: readonly string[];
}

interface Picture {
  readonly data: string;
  readonly text: string;
}

const INK = '#1c1a17';
const QUIET = '#5d574c';
const HAIR = '#cfc6b3';

/**
 * The report as a PDF. A picture that can't be read is left out and said: it is no reason that the owner gets none.
 */
export async function printedReport(of: ReportOf): Promise<Uint8Array> {
  const pictures: Picture[] = [];
  const leftOut = [...of.leftOut];
  for (const each of of.pictures) {
    if (await isReadable(each)) pictures.push(each);
    else leftOut.push(`${each.text || 'A picture'}: it can not be read`);
  }
  return pdfFrom(reportDocument({ ...of, pictures, leftOut }));
}

async function isReadable({ data }: Picture): Promise<boolean> {
  // what is wrong within a PNG ends the thread that prints it, so that is found out here
  if (data.startsWith('data:image/png') && !unfolds(Buffer.from(data.slice(data.indexOf(',') + 1), 'base64')))
    return false;
  try {
    await pdfFrom({ content: [{ image: data, fit: [10, 10] }], defaultStyle: { font: 'Roboto' } });
    return true;
  } catch {
    return false;
  }
}

/** The report as one or two pages: what was done, on the device and in words, and what the owner has to know. */
function reportDocument({
  map,
  report,
  url,
  takenIn,
  finished,
  handedOver,
  pictures,
  leftOut,
}: ReportOf): TDocumentDefinitions {
  return {
    pageSize: 'A4',
    pageMargins: [48, 44, 48, 54],
    info: { title: `${report.device}, ${report.title}: report` },
    defaultStyle: { font: 'Roboto', fontSize: 9.5, color: INK, lineHeight: 1.2 },
    styles: {
      h1: { fontSize: 21, bold: true },
      h2: { fontSize: 8.5, color: QUIET, margin: [0, 11, 0, 3] },
      small: { fontSize: 8, color: QUIET },
    },
    footer: (page: number, pages: number) => ({
      text: `${report.device}, ${report.title} · page ${page} of ${pages}`,
      style: 'small',
      margin: [48, 18, 48, 0],
    }),
    content: [
      {
        columns: [
          [
            { text: report.title, style: 'h1' },
            { text: [report.device, ...report.facts].join(' · '), fontSize: 11 },
            {
              text: `Taken in ${takenIn}${finished ? `, finished ${finished}` : ', not finished yet'}${handedOver ? `, ${handedOver}` : ''} · ${report.people.join(', ')}`,
              style: 'small',
              margin: [0, 3, 0, 0],
            },
          ],
          {
            width: 64,
            stack: [
              { svg: codeSvg(url), width: 62 },
              { text: 'Opens the record', fontSize: 6.5, color: QUIET },
            ],
          },
        ],
      },
      rule(),
      {
        columns: [
          [
            ...section('Done', list(report.done)),
            ...section('Parts fitted', partsTable(report.parts)),
            ...section('Screws', [{ text: report.screws }, ...list(report.torques)]),
            ...section('To know', list(report.toKnow)),
            ...section('On the way', list(report.troubles)),
          ],
          {
            width: 150,
            stack: [
              { svg: deviceSvg(map, report), fit: [150, 250], alignment: 'right', margin: [0, 12, 0, 2] },
              { text: 'Filled: new. Hatched: was out, and is back.', style: 'small', alignment: 'right' },
            ],
          },
        ],
        columnGap: 20,
      },
      ...section('Tests', testsTable(report.tests)),
      ...(pictures.length > 0
        ? [
            ...section('Pictures', []),
            {
              columns: pictures.map(({ data, text }) => [
                { image: data, fit: [118, 96] as [number, number] },
                { text, style: 'small' },
              ]),
              columnGap: 8,
            } as Content,
          ]
        : []),
      ...section('Pictures left out', list(leftOut)),
    ],
  };
}

function section(title: string, content: readonly Content[]): Content[] {
  return content.length === 0 && title !== 'Pictures' ? [] : [{ text: title, style: 'h2' }, ...content];
}

function list(lines: readonly string[]): Content[] {
  return lines.length === 0 ? [] : [{ ul: [...lines], markerColor: QUIET }];
}

function rule(): Content {
  return {
    canvas: [{ type: 'line', x1: 0, y1: 6, x2: 499, y2: 6, lineWidth: 0.8, lineColor: INK }],
  };
}

const HAIRLINES = {
  hLineWidth: () => 0.4,
  vLineWidth: () => 0,
  hLineColor: () => HAIR,
  paddingLeft: () => 0,
  paddingTop: () => 2,
  paddingBottom: () => 2,
};

function partsTable(parts: Report['parts']): Content[] {
  if (parts.length === 0) return [];
  const rows = parts.map(({ name, from, numbers }): TableCell[] => [{ text: name, bold: true }, from, numbers]);
  return [{ table: { widths: ['auto', '*', 'auto'], body: rows }, layout: HAIRLINES }];
}

function testsTable(tests: Report['tests']): Content[] {
  if (tests.length === 0) return [];
  const head = ['', 'As it came in', 'Handed over', ''].map((text): TableCell => ({ text, style: 'small' }));
  const cell = (text: string): TableCell =>
    text === '' ? { text: 'not touched', color: QUIET } : { text, bold: text === 'fails' };
  const rows = tests.map(({ name, before, after, note }): TableCell[] => [name, cell(before), cell(after), note]);
  return [{ table: { widths: [140, 80, 80, '*'], headerRows: 1, body: [head, ...rows] }, layout: HAIRLINES }];
}

function codeSvg(url: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 20 20">${codeOf(url, 0, 0, 20)}</svg>`;
}

/** The device to scale: what is new filled, what was out hatched. */
function deviceSvg({ outline, parts }: DeviceMap, { isNew, wasOut }: ReportOf['report']): string {
  const { width, height, corner } = outline;
  const shapes = parts
    .filter(({ base }) => !base)
    .toSorted((a, b) => b.z.top - a.z.top)
    .map((part) => {
      const { x, y, w, h } = part.box;
      const path = part.outline
        ? `M${part.outline.map(([px, py]) => `${n(px)} ${n(py)}`).join('L')}Z`
        : `M${n(x)} ${n(y)}h${n(w)}v${n(h)}h${n(-w)}Z`;
      const fill = isNew.includes(part.id) ? '#ab3410' : 'none';
      // a cover over everything would hide it all
      const isWhole = w * h > WHOLE * width * height;
      const hatch = wasOut.includes(part.id) && !isNew.includes(part.id) && !isWhole ? hatched(x, y, w, h) : '';
      return `<path d="${path}" fill="${fill}" fill-opacity="0.3" stroke="${INK}" stroke-width="0.25"/>${hatch}`;
    });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="-1 -1 ${n(width + 2)} ${n(height + 2)}"><rect width="${n(width)}" height="${n(height)}" rx="${n(corner)}" fill="none" stroke="${INK}" stroke-width="0.6"/>${shapes.join('')}</svg>`;
}

/** A part that covers more of the face than this is only outlined. */
const WHOLE = 0.6;

/** Slanted lines within a box. */
function hatched(x: number, y: number, w: number, h: number): string {
  const lines: string[] = [];
  for (let at = 3; at < w + h; at += 3) {
    const [x1, y1] = at <= h ? [0, at] : [at - h, h];
    const [x2, y2] = at <= w ? [at, 0] : [w, at - w];
    lines.push(`M${n(x + x1)} ${n(y + y1)}L${n(x + x2)} ${n(y + y2)}`);
  }
  return `<path d="${lines.join('')}" stroke="${QUIET}" stroke-width="0.15" fill="none"/>`;
}
