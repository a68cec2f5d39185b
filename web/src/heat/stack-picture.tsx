import type { StackOfBond } from '@nibrel/core/physics/heat';

const FILLS: Readonly<Record<string, string>> = {
  'soda-lime glass': 'var(--glass)',
  'display stack': 'var(--glass)',
  'pouch cell': 'var(--mat)',
  'still air gap': 'var(--sheet)',
};

const WIDTH = 250;
const HEIGHT = 190;
const LEAST = 15;

/** What lies under the heated face, layer by layer, thick ones thicker: the bond in the accent, watched places marked. */
export function StackPicture({ stack, face }: { readonly stack: StackOfBond; readonly face: string }) {
  const whole = stack.layers.reduce((sum, each) => sum + each.thickness, 0);
  const spare = HEIGHT - LEAST * stack.layers.length;
  const heights = stack.layers.map(({ thickness }) => LEAST + (spare * thickness) / whole);
  const tops = heights.map((_, index) => heights.slice(0, index).reduce((sum, each) => sum + each, 0));
  const names = stack.layers.map(({ material, thickness }) => `${material} ${round(thickness)} mm`).join(', ');
  return (
    <figure className="m-0">
      <svg
        role="img"
        aria-label={`From the heated face: ${names}`}
        viewBox={`0 -22 ${WIDTH} ${HEIGHT + 26}`}
        className="w-full max-w-88"
      >
        <path
          d="M6 -16v10m0 0l-3 -4m3 4l3 -4M22 -16v10m0 0l-3 -4m3 4l3 -4M38 -16v10m0 0l-3 -4m3 4l3 -4"
          stroke="var(--now)"
          strokeWidth="1.6"
          fill="none"
        />
        <text x="50" y="-7" fontSize="11" fill="var(--quiet)">
          heated: the {face}
        </text>
        {stack.layers.map(({ material, thickness }, index) => {
          const isBond = index === stack.bondLayer;
          const at = tops[index]! + heights[index]! / 2;
          return (
            <g key={`${material} ${tops[index]}`}>
              <rect
                x="0.5"
                y={tops[index]}
                width="58"
                height={heights[index]}
                fill={isBond ? 'var(--now-wash)' : (FILLS[material] ?? 'var(--metal)')}
                stroke={isBond ? 'var(--now)' : 'var(--quiet)'}
                strokeWidth={isBond ? 1.8 : 0.6}
              />
              <text
                x="66"
                y={at}
                fontSize="11.5"
                dominantBaseline="central"
                fill={isBond ? 'var(--now)' : 'var(--ink)'}
                fontWeight={isBond ? 700 : 400}
              >
                {isBond ? `bond, ${material}` : material} {round(thickness)} mm
              </text>
            </g>
          );
        })}
        {stack.watch.map(({ layer, fraction, what }) => (
          <circle
            key={what}
            cx="29"
            cy={Math.min(HEIGHT - 4, tops[layer]! + Math.max(4, fraction * heights[layer]!))}
            r="3.6"
            fill="var(--sheet)"
            stroke="var(--done)"
            strokeWidth="1.8"
          />
        ))}
      </svg>
      <figcaption className="text-note text-quiet">
        {stack.isGuess
          ? 'The map gives no layers: drawn up from the kinds of its parts, a guess.'
          : 'Layers as the map gives them.'}
        {stack.watch.length > 0 && ' Rings are watched.'}
      </figcaption>
    </figure>
  );
}

function round(thickness: number): number {
  return Math.round(thickness * 100) / 100;
}
