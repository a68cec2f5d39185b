import { lieOf, type PickCard } from '@nibrel/core/planner/cut';
import { n, text, turned } from './svg.ts';

/** A4, mm. */
export const PAGE = { width: 210, height: 297 };
const MARGIN = 10;
const TOP = 24;
/** A part that is larger than this has room for its name. */
const NAMED_mm2 = 900;
/** Where the marks stand: beside a phone, on the face of a tablet. */
const COLUMN = 50;

/**
 * The card as a drawing of one page, in millimetres throughout: printed at 100 % it is to scale. The outline carries a
 * band along each edge as deep as a pick may go there; the marks are for the picks themselves.
 */
export function pickCardSvg(card: PickCard): string {
  const { outline } = card;
  const beside = PAGE.width - 2 * MARGIN - outline.width >= COLUMN + 6;
  const device = { x: MARGIN, y: TOP };
  const marks = beside
    ? { x: MARGIN + outline.width + 8, y: TOP }
    : { x: MARGIN + outline.width / 2 - COLUMN / 2, y: TOP + outline.height * 0.28 };
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${PAGE.width}mm" height="${PAGE.height}mm" viewBox="0 0 ${PAGE.width} ${PAGE.height}" font-family="Roboto, Helvetica, Arial, sans-serif">`,
    `<rect width="${PAGE.width}" height="${PAGE.height}" fill="white"/>`,
    text(MARGIN, 11, 5.4, `${card.device}: pick card, ${card.part}`, 'bold'),
    text(
      MARGIN,
      17,
      3.3,
      `Print at 100 %, no fitting to the page. ${card.mirrored ? 'Seen from the back.' : 'Seen from the front.'}${card.toward ? ` Opens toward the ${card.toward}: that edge last.` : ''}`,
    ),
    `<g transform="translate(${device.x} ${device.y})">${outlineOf(card)}</g>`,
    `<g transform="translate(${marks.x} ${marks.y})">${marksOf(card)}</g>`,
    '</svg>',
  ].join('');
}

function outlineOf(card: PickCard): string {
  const { width, height, corner } = card.outline;
  const at = ({ x, y }: { x: number; y: number }) => ({ x: card.mirrored ? width - x : x, y });
  const keepOuts = card.keepOuts.map(({ name, box }) => {
    const x = card.mirrored ? width - box.x - box.w : box.x;
    // small ones are named at their edge
    const isNamed = box.w * box.h > NAMED_mm2;
    const middle = { x: x + box.w / 2, y: box.y + box.h * 0.8 };
    const words = `keep out: ${name}`;
    return (
      `<rect x="${n(x)}" y="${n(box.y)}" width="${n(box.w)}" height="${n(box.h)}" fill="none" stroke="black" stroke-width="0.15" stroke-dasharray="0.4 1"/>` +
      (isNamed
        ? box.w < 30
          ? turned(middle.x + 1, box.y + box.h / 2, 2.8, words)
          : text(middle.x, middle.y, 2.8, words, 'normal', 'middle')
        : '')
    );
  });
  const bands = card.edges.map((edge) => {
    const [from, to] = [at(edge.from), at(edge.to)];
    const { runs, inward } = lieOf({ from, to }, card.outline);
    const depth = edge.depth ?? 0;
    const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
    const label = {
      x: middle.x + inward.x * (depth + (runs === 'across' ? 0 : 2)),
      y: middle.y + inward.y * (depth + 4) + (runs === 'across' && inward.y > 0 ? 1 : 0),
    };
    const band =
      edge.depth === null
        ? ''
        : `<path d="M${n(from.x)} ${n(from.y)}L${n(to.x)} ${n(to.y)}l${n(inward.x * depth)} ${n(inward.y * depth)}L${n(from.x + inward.x * depth)} ${n(from.y + inward.y * depth)}Z" fill="#e8e8e8" stroke="black" stroke-width="0.15"${edge.near ? ' stroke-dasharray="1 0.6"' : ''}/>`;
    const words = edge.depth === null ? 'do not cut' : `${edge.turn}: ${edge.depth} mm`;
    const near = edge.near ? ` (${edge.near} behind)` : '';
    return (
      band +
      (runs === 'along'
        ? turned(label.x + (inward.x > 0 ? 2 : -0.5), middle.y, 3.2, words + near)
        : text(label.x, label.y, 3.2, words + near, 'normal', 'middle'))
    );
  });
  return `<rect width="${n(width)}" height="${n(height)}" rx="${n(corner)}" fill="none" stroke="black" stroke-width="0.3"/>${keepOuts.join('')}${bands.join('')}`;
}

/** The bar for the printer, then a pair of lines for each depth: the tip on the thick one, the mark at the thin one. */
function marksOf(card: PickCard): string {
  const bar = [
    `<path id="bar" d="M0 4L${card.bar_mm} 4" stroke="black" stroke-width="0.4" fill="none"/>`,
    `<path d="M0 2L0 6" stroke="black" stroke-width="0.4" fill="none"/><path d="M${card.bar_mm} 2L${card.bar_mm} 6" stroke="black" stroke-width="0.4" fill="none"/>`,
    text(0, 10.5, 3.3, `This bar is ${card.bar_mm} mm.`),
    text(0, 15, 3.3, 'If it is not, print again.'),
    text(0, 24, 3.4, 'Tip on the thick line,', 'bold'),
    text(0, 28.5, 3.4, 'mark at the thin one', 'bold'),
  ];
  let y = 34;
  for (const { depth, edges } of card.marks) {
    bar.push(
      `<path d="M0 ${n(y)}L24 ${n(y)}" stroke="black" stroke-width="0.8" fill="none"/>`,
      `<path d="M0 ${n(y + depth)}L24 ${n(y + depth)}" stroke="black" stroke-width="0.2" fill="none"/>`,
      text(27, y + depth / 2 + 1.2, 4.4, `${depth} mm`, 'bold'),
      text(0, y + depth + 4.6, 3.1, edges.map((edge) => edge.replaceAll('-', ' ')).join(', ')),
    );
    y += depth + 12;
  }
  return bar.join('');
}
