import { type Label, NAME_PX, RING_PX } from '@nibrel/core/drawn/picture';
import { useMm } from './scale.ts';
import { Ring } from './number-mark.tsx';
import { Words } from './thing.tsx';

/** What stands on a part: its numbers in the list, straight up or down, its name. */
export function LabelMark({ label: { box, name, size_px, isStrong, numbers, way } }: { readonly label: Label }) {
  const mm = useMm();
  const y = box.y + box.h / 2;
  const ring = mm(RING_PX);
  const step = mm(RING_PX + 4);
  const rings = numbers.length + (way ? 1 : 0);
  const from = box.x + rings * step;
  return (
    <g pointerEvents="none">
      {numbers.map((number, at) => (
        <Ring key={number} x={box.x + ring / 2 + at * step} y={y} r={ring / 2}>
          <Words x={box.x + ring / 2 + at * step} y={y} size_px={NAME_PX} strong>
            {number}
          </Words>
        </Ring>
      ))}
      {way && <Way x={box.x + ring / 2 + numbers.length * step} y={y} r={ring / 2} way={way} />}
      {name && (
        <Words x={(from + box.x + box.w) / 2} y={y} size_px={size_px} strong={isStrong}>
          {name}
        </Words>
      )}
    </g>
  );
}

interface WayProps {
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly way: 'up' | 'down';
}

/** Out of the page, as an arrow is drawn that is seen from its point, or into it, as from its feathers. */
function Way({ x, y, r, way }: WayProps) {
  const mm = useMm();
  const d = r * 0.6;
  return (
    <g stroke="var(--now)" fill="none" strokeWidth={mm(2.6)} strokeLinecap="round">
      <circle cx={x} cy={y} r={r * 0.85} fill="var(--sheet)" />
      {way === 'up' ? (
        <circle cx={x} cy={y} r={r * 0.28} fill="var(--now)" />
      ) : (
        <path d={`M${x - d} ${y - d}L${x + d} ${y + d}M${x - d} ${y + d}L${x + d} ${y - d}`} />
      )}
    </g>
  );
}
