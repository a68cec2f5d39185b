import { countdown } from '@nibrel/core/planner/words';
import type { Band } from '@nibrel/core/physics/heat';
import {
  Chart,
  type ChartData,
  type ChartOptions,
  Filler,
  LinearScale,
  LineElement,
  type Plugin,
  PointElement,
  ScatterController,
} from 'chart.js';
import { useLayoutEffect, useRef, useState } from 'react';
import { Scatter } from 'react-chartjs-2';
import { type Colours, dashOf, drawWords, LINE_PX, NAME_PX, tokens, wordsFor } from './chart-words.ts';
import type { CurvesProps } from './curves-props.ts';
import { useSettings } from '../app/settings.ts';
import { temperature } from '../app/units.ts';

Chart.register(ScatterController, LineElement, PointElement, LinearScale, Filler);

interface Point {
  readonly x: number;
  readonly y: number;
}

/** Bond and what is watched over time, each with its reach; limits and moments are lines with words. */
export function Curves(props: CurvesProps) {
  // another theme has other colours
  useSettings((settings) => settings.theme);
  const colours = tokens();
  const shown = props.foresight.bands.filter(({ id, max_C }) => id === 'bond' || max_C !== undefined);
  const words = wordsFor(props, shown, colours);
  const latest = useRef(words);
  // before the chart's own effect, which draws
  useLayoutEffect(() => {
    latest.current = words;
  });
  const [plugin] = useState<Plugin<'scatter'>>(() => ({
    id: 'words',
    afterDatasetsDraw: (chart) => drawWords(chart as Chart, latest.current),
  }));
  return (
    <div className="h-full min-h-0 w-full">
      <Scatter
        data={dataOf(props, shown, colours)}
        options={optionsOf(props, shown, colours)}
        plugins={[plugin]}
        aria-label={props.label}
      />
    </div>
  );
}

function points(times_s: readonly number[], temps: readonly number[]): Point[] {
  return times_s.map((x, index) => ({ x, y: temps[index]! }));
}

function dataOf(
  { foresight, overlays = [], readings = [] }: CurvesProps,
  shown: readonly Band[],
  colours: Colours,
): ChartData<'scatter', Point[]> {
  const line = { showLine: true, pointRadius: 0, pointHitRadius: 0, order: 3 };
  const bands = shown.flatMap((band, index) => {
    const isBond = band.id === 'bond';
    const colour = isBond ? colours.now : colours.done;
    const wash = isBond ? colours.wash : colours.doneWash;
    const at = (temps: readonly number[]) => points(foresight.times_s, temps);
    return [
      {
        ...line,
        label: `${band.id} high`,
        data: at(band.high),
        borderColor: wash,
        borderWidth: 1,
        backgroundColor: wash,
      },
      {
        ...line,
        label: `${band.id} low`,
        data: at(band.low),
        borderColor: wash,
        borderWidth: 1,
        backgroundColor: `${wash}b0`,
        fill: '-1',
      },
      {
        ...line,
        label: band.id,
        data: at(band.likely),
        borderColor: colour,
        order: 1,
        borderWidth: isBond ? 3 : 2,
        borderDash: dashOf(index),
      },
    ];
  });
  const laidOver = overlays.map(({ name, foresight: other }, index) => ({
    ...line,
    label: name,
    data: points(other.times_s, other.bands[0]!.likely),
    borderColor: colours.quiet,
    borderWidth: 1.5,
    borderDash: [2 + 2 * index, 3],
    order: 2,
  }));
  const read = {
    label: 'readings',
    order: 0,
    data: readings.map(({ at_s, temp_C }) => ({ x: at_s, y: temp_C })),
    pointRadius: 3.2,
    pointStyle: 'crossRot' as const,
    borderColor: colours.ink,
    borderWidth: 1.6,
  };
  return { datasets: [...bands, ...laidOver, read] };
}

function optionsOf(
  { foresight, overlays = [], soften_C, end_s }: CurvesProps,
  shown: readonly Band[],
  colours: Colours,
): ChartOptions<'scatter'> {
  const end = end_s ?? Math.max(foresight.times_s.at(-1)!, ...overlays.map((each) => each.foresight.times_s.at(-1)!));
  const highest = Math.max(soften_C, ...shown.flatMap(({ high, max_C }) => [Math.max(...high), max_C ?? 0]));
  const font = { family: getComputedStyle(document.body).fontFamily, size: 14 };
  const grid = { color: colours.hair, lineWidth: 0.6, tickLength: 4 };
  return {
    animation: false,
    maintainAspectRatio: false,
    events: [],
    layout: { padding: { right: NAME_PX + 14, top: 18 + 2 * LINE_PX } },
    scales: {
      x: {
        type: 'linear',
        min: 0,
        max: end,
        grid,
        border: { color: colours.ink },
        ticks: {
          color: colours.quiet,
          font,
          maxRotation: 0,
          autoSkipPadding: 14,
          stepSize: end > 900 ? 300 : 60,
          callback: (value) => countdown(Number(value)),
        },
      },
      y: {
        type: 'linear',
        min: 20,
        max: Math.ceil((highest + 4) / 10) * 10,
        grid,
        border: { color: colours.ink },
        ticks: { color: colours.quiet, font, stepSize: 10, callback: (value) => temperature(Number(value)) },
      },
    },
  };
}
