import { farAt, type Move, nameAt, type StayingSide, WORD_PX } from '@nibrel/core/drawn/picture';
import type { Point } from '@nibrel/core/model/device-map';
import { useContext } from 'react';
import { PxPerMm, useMm } from './scale.ts';
import { Words } from './thing.tsx';

/** How a part goes: the side that stays as a heavy line, the way of the other as an arc, a slide as an arrow. */
export function PartMove({ move }: { readonly move: Move }) {
  const mm = useMm();
  const scale = useContext(PxPerMm);
  if (move.kind === 'begin') return <Begin at={move.at} />;
  const { from, to, far } = move;
  const at = farAt(move, scale);
  return (
    <g
      stroke="var(--now)"
      fill="none"
      strokeWidth={mm(3)}
      strokeLinecap="round"
      strokeLinejoin="round"
      pointerEvents="none"
    >
      {move.kind === 'tilt' && <Stays side={move} />}
      <path d={`M${from.x} ${from.y}${move.kind === 'tilt' ? arc(from, to) : `L${to.x} ${to.y}`}`} />
      <path d={head(from, to, mm(13))} />
      <g stroke="none">
        {far && (
          <Words {...at} size_px={WORD_PX} strong>
            {far}
          </Words>
        )}
      </g>
    </g>
  );
}

/** The side that stays down, named: nothing is done there, so it is drawn as what is not in hand. */
export function Stays({ side }: { readonly side: StayingSide }) {
  const mm = useMm();
  const scale = useContext(PxPerMm);
  const [a, b] = side.stays;
  return (
    <g pointerEvents="none">
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--ink)" strokeWidth={mm(8)} strokeLinecap="round" />
      <g stroke="none">
        <Words {...nameAt(side, scale)} size_px={WORD_PX}>
          {side.name}
        </Words>
      </g>
    </g>
  );
}

/** A wedge where it is begun. */
function Begin({ at: { x, y } }: { readonly at: Point }) {
  const mm = useMm();
  const d = mm(12);
  return (
    <path
      d={`M${x} ${y}l${d * 0.8} ${d * 1.5}h${-d * 1.6}Z`}
      fill="var(--now)"
      stroke="var(--sheet)"
      strokeWidth={mm(2)}
      pointerEvents="none"
    />
  );
}

/** It rises on its way: the arc bends out of the straight line by a sixth of it. */
function arc(from: Point, to: Point): string {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  return `Q${(from.x + to.x) / 2 - dy / 6} ${(from.y + to.y) / 2 + dx / 6} ${to.x} ${to.y}`;
}

function head(from: Point, to: Point, size: number): string {
  const long = Math.max(0.01, Math.hypot(to.x - from.x, to.y - from.y));
  const [ux, uy] = [(to.x - from.x) / long, (to.y - from.y) / long];
  const back = { x: to.x - ux * size, y: to.y - uy * size };
  const [px, py] = [-uy * size * 0.6, ux * size * 0.6];
  return `M${back.x + px} ${back.y + py}L${to.x} ${to.y}L${back.x - px} ${back.y - py}`;
}
