import type { Damage } from '@nibrel/core/job/events';
import { WORD_PX } from '@nibrel/core/drawn/picture';
import { useMm } from './scale.ts';

/** What was seen, each kind as a shape of its own: never told by colour alone. In mm, around its place. */
const SHAPES: Readonly<Record<Damage, string>> = {
  crack: 'M-4-3L-1.2-.6L-2 .9L1.4 1.2L.6 2.6L4 3.4M-1.2-.6L1.2-2.6M1.4 1.2L3.4-.4',
  dent: 'M-3 0A3 3 0 1 0 3 0A3 3 0 1 0-3 0ZM-1 0A1 1 0 1 0 1 0A1 1 0 1 0-1 0Z',
  bend: 'M-4 1.6Q0-3.4 4 1.6M-4 3.2Q0-1.8 4 3.2',
  liquid: 'M0-3.6C2.6-.4 3 .6 3 1.4A3 2.4 0 1 1-3 1.4C-3 .6-2.6-.4 0-3.6Z',
  corrosion: 'M-3-3L3 3M-3 3L3-3M-3.6 0H3.6M0-3.6V3.6',
  swelling: 'M-4 0Q-4-3 0-3Q4-3 4 0M-2.4 1.6Q0-.8 2.4 1.6M0-5.4V-3.8M-4.4-4.4L-3.4-3.2M4.4-4.4L3.4-3.2',
  missing: 'M-3-3H-1M1-3H3V-1M3 1V3H1M-1 3H-3V1M-3-1V-3M-1.4-1.4L1.4 1.4M-1.4 1.4L1.4-1.4',
};

export const DAMAGE_WORDS: Readonly<Record<Damage, string>> = {
  crack: 'Crack',
  dent: 'Dent',
  bend: 'Bend',
  liquid: 'Liquid mark',
  corrosion: 'Corrosion',
  swelling: 'Swelling',
  missing: 'Missing piece',
};

interface DamageMarkProps {
  readonly kind: Damage;
  readonly x: number;
  readonly y: number;
}

export function DamageMark({ kind, x, y }: DamageMarkProps) {
  const mm = useMm();
  return (
    <g transform={`translate(${x} ${y})`} pointerEvents="none" fill="none" strokeLinejoin="round" strokeLinecap="round">
      <path d={SHAPES[kind]} stroke="var(--sheet)" strokeWidth="2.2" />
      <path d={SHAPES[kind]} stroke="var(--now)" strokeWidth="0.9" />
      <text
        y="6.6"
        textAnchor="middle"
        fontSize={mm(WORD_PX)}
        fontWeight="700"
        fill="var(--now)"
        stroke="var(--sheet)"
        strokeWidth={mm(3)}
        paintOrder="stroke"
      >
        {DAMAGE_WORDS[kind].toLowerCase()}
      </text>
    </g>
  );
}

/** A damage as it stands in a list. */
export function DamageSign({ kind }: { readonly kind: Damage }) {
  return (
    <svg aria-hidden="true" viewBox="-6 -6 12 12" width="28" height="28" className="shrink-0">
      <path d={SHAPES[kind]} fill="none" stroke="currentColor" strokeWidth="0.9" strokeLinecap="round" />
    </svg>
  );
}
