import type { DeviceMap } from '@nibrel/core/device-map';
import type { Op } from '@nibrel/core/drafts';
import { partName } from '@nibrel/core/words';

interface MovesOverProps {
  readonly map: DeviceMap;
  readonly plan: readonly Op[];
  readonly ahead: readonly Op[];
  readonly now: Op;
}

/** What moves from the old part to the new one, in its order: done, in hand, to come. */
export function MovesOver({ map, plan, ahead, now }: MovesOverProps) {
  const moves = (ops: readonly Op[], kind: Op['kind']) =>
    ops.flatMap((op) => (op.stage === 'move' && op.kind === kind ? [op.part!] : []));
  const pieces = [...new Set([...moves(plan, 'lift'), ...moves(ahead, 'fit')])];
  const left = new Set(moves(ahead, 'fit'));
  if (pieces.length < 2) return null;
  const held = map.joints.find(({ id }) => id === now.joint)?.holds ?? [];
  return (
    <ol aria-label="Moves over" className="grid grid-cols-2 gap-x-6 text-body">
      {pieces.map((part) => (
        <li key={part} className="flex justify-between border-b border-hair py-0.5">
          <span className={part === now.part || held.includes(part) ? 'font-bold text-now' : ''}>
            {partName(map, part)}
          </span>
          <span className="text-quiet">{left.has(part) ? '' : 'moved'}</span>
        </li>
      ))}
    </ol>
  );
}
