import { countdown } from '@nibrel/core/planner/words';
import { type Band, valueAt } from '@nibrel/core/physics/heat';
import type { Chart } from 'chart.js';
import type { CurvesProps } from './curves-props.ts';
import { temperature } from '../app/units.ts';

export type Colours = ReturnType<typeof tokens>;

export function tokens() {
  const style = getComputedStyle(document.documentElement);
  const read = (name: string) => style.getPropertyValue(name).trim();
  return {
    ink: read('--ink'),
    quiet: read('--quiet'),
    hair: read('--hair'),
    now: read('--now'),
    wash: read('--now-wash'),
    done: read('--done'),
    doneWash: read('--done-wash'),
    care: read('--care'),
    sheet: read('--sheet'),
  };
}

interface ChartWords {
  readonly colours: Colours;
  /** the hottest first */
  readonly levels: readonly {
    readonly temp_C: number;
    readonly words: string;
    readonly colour: string;
    readonly dash: number[];
  }[];
  /** the earliest first */
  readonly moments: readonly { readonly at_s: number; readonly words: string; readonly colour: string }[];
  readonly names: readonly {
    readonly words: string;
    readonly times: readonly number[];
    readonly temps: readonly number[];
    readonly colour: string;
    readonly bold: boolean;
  }[];
}

/** Lines that stand for a limit or a moment, and the name of each curve. */
export function wordsFor(
  { foresight, soften_C, heat_s, overlays = [], now_s }: CurvesProps,
  shown: readonly Band[],
  colours: Colours,
): ChartWords {
  const { late } = foresight.ready;
  return {
    colours,
    levels: [
      { temp_C: soften_C, words: `soft from ${temperature(soften_C)}`, colour: colours.now, dash: dashOf(0) },
      ...shown.flatMap(({ what, max_C }, index) =>
        max_C === undefined
          ? []
          : [
              {
                temp_C: max_C,
                words: `${what}: at most ${temperature(max_C)}`,
                colour: colours.care,
                dash: dashOf(index),
              },
            ],
      ),
    ].toSorted((a, b) => b.temp_C - a.temp_C),
    moments: [
      { at_s: heat_s, words: `off ${countdown(heat_s)}`, colour: colours.ink },
      ...(late === null ? [] : [{ at_s: late, words: `soft ${countdown(late)}`, colour: colours.now }]),
      ...(now_s === undefined ? [] : [{ at_s: now_s, words: `now ${countdown(now_s)}`, colour: colours.ink }]),
    ].toSorted((a, b) => a.at_s - b.at_s),
    names: [
      ...shown.map((band) => ({
        words: band.what,
        temps: band.likely,
        times: foresight.times_s,
        colour: band.id === 'bond' ? colours.now : colours.done,
        bold: true,
      })),
      ...overlays.map(({ name, foresight: other }) => ({
        words: name,
        temps: other.bands[0]!.likely,
        times: other.times_s,
        colour: colours.quiet,
        bold: false,
      })),
    ],
  };
}

/** A curve and its limit are told from others by the same dash, the bond's is whole. */
export function dashOf(index: number): number[] {
  return DASHES[index % DASHES.length]!;
}

const DASHES = [[], [9, 4], [2, 3], [14, 4, 2, 4], [5, 2], [2, 6]];

/** Room for the name of a curve beside it, px. */
export const NAME_PX = 116;

/** Room between the words of two lines, px. */
export const LINE_PX = 17;

export function drawWords({ ctx, chartArea, scales }: Chart, { colours, levels, moments, names }: ChartWords): void {
  const { left, right, top, bottom } = chartArea;
  const [x, y] = [scales['x']!, scales['y']!];
  const font = `14px ${getComputedStyle(document.body).fontFamily}`;
  ctx.save();
  ctx.textBaseline = 'middle';
  ctx.font = font;
  let above = -Infinity;
  for (const { temp_C, words, colour, dash } of levels) {
    const at = y.getPixelForValue(temp_C);
    ctx.setLineDash(dash);
    stroke(ctx, colour, left, at, right, at);
    ctx.textAlign = 'right';
    write(ctx, colours, colour, font, words, right - 8, at - above < LINE_PX + 8 ? at + 10 : at - 9);
    above = at;
  }
  ctx.setLineDash([]);
  // a word that would run into the one before it goes a row higher
  const ends = [-Infinity, -Infinity, -Infinity];
  for (const { at_s, words, colour } of moments) {
    const at = x.getPixelForValue(at_s);
    if (at > right + 1) continue;
    const half = ctx.measureText(words).width / 2 + 4;
    const middle = Math.max(left + half, at);
    const row = Math.max(
      0,
      ends.findIndex((end) => middle - half > end),
    );
    ends[row] = middle + half;
    stroke(ctx, colour, at, top - row * LINE_PX, at, bottom);
    ctx.textAlign = 'center';
    write(ctx, colours, colour, font, words, middle, top - 9 - row * LINE_PX);
  }
  ctx.textAlign = 'left';
  let before = -Infinity;
  const placed = names
    .map((each) => ({ ...each, at: y.getPixelForValue(valueAt(each.times, each.temps, x.max)) }))
    .toSorted((a, b) => a.at - b.at);
  for (const { words, colour, bold, at } of placed) {
    ctx.font = bold ? `bold ${font}` : font;
    for (const [row, line] of wrapped(ctx, words).entries()) {
      before = Math.max(at + row * LINE_PX, before + LINE_PX);
      write(ctx, colours, colour, ctx.font, line, right + 8, before);
    }
  }
  ctx.restore();
}

/** Nothing of a name is cut: it goes on in the next line. */
export function wrapped(ctx: Pick<CanvasRenderingContext2D, 'measureText'>, words: string): string[] {
  return words.split(' ').reduce<string[]>((lines, word) => {
    const longer = lines.length > 0 ? `${lines.at(-1)} ${word}` : word;
    const fits = lines.length > 0 && ctx.measureText(longer).width <= NAME_PX;
    return fits ? [...lines.slice(0, -1), longer] : [...lines, word];
  }, []);
}

function stroke(ctx: CanvasRenderingContext2D, colour: string, x1: number, y1: number, x2: number, y2: number) {
  ctx.beginPath();
  ctx.strokeStyle = colour;
  ctx.lineWidth = 1.2;
  ctx.moveTo(x1, y1);
  ctx.lineTo(x2, y2);
  ctx.stroke();
}

function write(
  ctx: CanvasRenderingContext2D,
  colours: Colours,
  colour: string,
  font: string,
  words: string,
  x: number,
  y: number,
) {
  ctx.font = font;
  ctx.lineWidth = 4;
  ctx.lineJoin = 'round';
  ctx.strokeStyle = colours.sheet;
  ctx.strokeText(words, x, y);
  ctx.fillStyle = colour;
  ctx.fillText(words, x, y);
}
