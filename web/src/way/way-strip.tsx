import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { setUpBefore } from '@nibrel/core/planner/plan';
import { isDelicate } from '@nibrel/core/workshop/prepare';
import { opLine, duration } from '@nibrel/core/planner/words';

interface WayStripProps {
  readonly map: DeviceMap;
  readonly ops: readonly Op[];
  readonly at: number;
  onGo(to: number): void;
}

/** The whole way on its time axis: waiting hatched, what is delicate marked above, and where the film stands. */
export function WayStrip({ map, ops, at, onGo }: WayStripProps) {
  const setUp = setUpBefore(ops);
  const work = ops.map((op, index) => op.seconds + setUp[index]!);
  const lengths = ops.map((op, index) => work[index]! + (op.wait_s ?? 0));
  const sum = (seconds: readonly number[]) => seconds.reduce((total, each) => total + each, 0);
  const span = Math.max(1, sum(lengths));
  const passed = sum(lengths.slice(0, at));
  const share = (seconds: number) => `${(100 * seconds) / span}%`;
  return (
    <>
      <div className="relative flex h-14 w-full items-center">
        {ops.map((op, index) => (
          <button
            key={`${op.id} ${index}`}
            type="button"
            tabIndex={-1}
            aria-hidden="true"
            title={opLine(map, op)}
            onClick={() => onGo(index)}
            style={{ width: share(lengths[index]!) }}
            className={`flex h-full items-center border-t-4 ${isDelicate(map, op) ? 'border-care' : 'border-transparent'}`}
          >
            <span className="flex h-6 w-full border-y border-ink">
              <span
                className={lookOf(index, at)}
                style={{ width: `${(100 * work[index]!) / (lengths[index] || 1)}%` }}
              />
              <span className="hatched grow" />
            </span>
          </button>
        ))}
        <div
          role="img"
          aria-label={`Step ${at + 1} of ${ops.length}, ${duration(passed)} in`}
          className="pointer-events-none absolute inset-y-0 border-l-4 border-now"
          style={{ left: share(passed) }}
        />
      </div>
      <p className="flex justify-between text-note text-quiet">
        <span>{duration(passed)} in</span>
        <span>a line above marks what is delicate, hatching what waits</span>
        <span>{duration(span)} in all</span>
      </p>
    </>
  );
}

function lookOf(index: number, at: number): string {
  if (index < at) return 'bg-done';
  return index === at ? 'bg-now' : 'border-r border-hair bg-ink';
}
