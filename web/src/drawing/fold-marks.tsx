import { type DeviceMap, partById } from '@nibrel/core/model/device-map';
import { onSide, type Side } from '@nibrel/core/drawn/places';
import { useMm } from './scale.ts';
import { Words } from './thing.tsx';

interface FoldMarksProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly part: string;
}

/** Where a flex is folded as it goes in: a dashed line each, numbered where there are several. */
export function FoldMarks({ map, side, part }: FoldMarksProps) {
  const mm = useMm();
  const folds = partById(map, part)?.folds ?? [];
  return (
    <g pointerEvents="none" aria-hidden="true">
      {folds.map(({ from, to }, at) => {
        const [x1, x2] = [onSide(map, side, from.x), onSide(map, side, to.x)];
        return (
          <g key={`${from.x} ${from.y} ${to.x} ${to.y}`}>
            <line
              x1={x1}
              y1={from.y}
              x2={x2}
              y2={to.y}
              stroke="var(--now)"
              strokeWidth={mm(3)}
              strokeDasharray={`${mm(8)} ${mm(4)}`}
            />
            <Words x={Math.max(x1, x2) + mm(22)} y={(from.y + to.y) / 2} strong>
              {folds.length > 1 ? `fold ${at + 1}` : 'fold'}
            </Words>
          </g>
        );
      })}
    </g>
  );
}
