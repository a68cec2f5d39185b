import { strengthAfter } from '@nibrel/core/physics/bonding';
import {
  Chart,
  type ChartOptions,
  LinearScale,
  LineElement,
  LogarithmicScale,
  type Plugin,
  PointElement,
  ScatterController,
} from 'chart.js';
import { Scatter } from 'react-chartjs-2';
import { useSettings } from '../app/settings.ts';
import { tokens } from '../heat/chart-words.ts';

Chart.register(ScatterController, LineElement, PointElement, LinearScale, LogarithmicScale);

interface StrengthCurveProps {
  /** seconds since it was pressed */
  readonly now_s: number;
  /** share of its strength that is asked for before it is handed over */
  readonly asked: number;
  readonly label: string;
}

const MINUTE_S = 60;
const HOUR_S = 3600;
const FROM_S = 2 * MINUTE_S;
const END_S = 72 * HOUR_S;

/** Where a word stands on the axis of time. */
const TICKS: ReadonlyMap<number, string> = new Map([
  [5 * MINUTE_S, '5 min'],
  [20 * MINUTE_S, '20 min'],
  [HOUR_S, '1 h'],
  [4 * HOUR_S, '4 h'],
  [24 * HOUR_S, '24 h'],
  [END_S, '72 h'],
]);

/** How strong adhesive tape is by when, on the logarithm of time; where it stands now, and what is asked for. */
export function StrengthCurve({ now_s, asked, label }: StrengthCurveProps) {
  // another theme has other colours
  useSettings((settings) => settings.theme);
  const colours = tokens();
  const steps = Array.from({ length: 80 }, (_, at) => FROM_S * (END_S / FROM_S) ** (at / 79));
  const curve = steps.map((x) => ({ x, y: 100 * strengthAfter(x) }));
  const now = Math.min(END_S, Math.max(FROM_S, now_s));
  const font = { family: getComputedStyle(document.body).fontFamily, size: 14 };
  const grid = { color: colours.hair, lineWidth: 0.6 };
  const options: ChartOptions<'scatter'> = {
    animation: false,
    maintainAspectRatio: false,
    events: [],
    layout: { padding: { top: 20, right: 12 } },
    scales: {
      x: {
        type: 'logarithmic',
        min: FROM_S,
        max: END_S,
        grid,
        border: { color: colours.ink },
        afterBuildTicks: (axis) => {
          axis.ticks = [...TICKS.keys()].map((value) => ({ value }));
        },
        ticks: { color: colours.quiet, font, maxRotation: 0, callback: (value) => TICKS.get(Number(value)) ?? '' },
      },
      y: {
        type: 'linear',
        min: 0,
        max: 100,
        grid,
        border: { color: colours.ink },
        ticks: { color: colours.quiet, font, stepSize: 25, callback: (value) => `${value} %` },
      },
    },
  };
  const words: Plugin<'scatter'> = {
    id: 'now and asked',
    afterDatasetsDraw: ({ ctx, chartArea, scales }) => {
      const x = scales['x']!.getPixelForValue(now);
      const y = scales['y']!.getPixelForValue(100 * asked);
      ctx.save();
      ctx.font = `14px ${font.family}`;
      ctx.strokeStyle = colours.care;
      ctx.setLineDash([6, 4]);
      ctx.beginPath();
      ctx.moveTo(chartArea.left, y);
      ctx.lineTo(chartArea.right, y);
      ctx.stroke();
      ctx.fillStyle = colours.care;
      ctx.textAlign = 'right';
      ctx.fillText(`asked for: ${Math.round(100 * asked)} %`, chartArea.right - 6, y + 17);
      ctx.setLineDash([]);
      ctx.strokeStyle = colours.now;
      ctx.lineWidth = 2;
      ctx.beginPath();
      ctx.moveTo(x, chartArea.top);
      ctx.lineTo(x, chartArea.bottom);
      ctx.stroke();
      ctx.fillStyle = colours.now;
      ctx.textAlign = x > (chartArea.left + chartArea.right) / 2 ? 'right' : 'left';
      ctx.fillText(`now: ${Math.round(100 * strengthAfter(now_s))} %`, x, chartArea.top - 6);
      ctx.restore();
    },
  };
  return (
    <div className="h-56 w-full">
      <Scatter
        data={{
          datasets: [{ data: curve, showLine: true, pointRadius: 0, borderColor: colours.done, borderWidth: 3 }],
        }}
        options={options}
        plugins={[words]}
        aria-label={label}
        key={Math.round(now_s / 30)}
      />
    </div>
  );
}
