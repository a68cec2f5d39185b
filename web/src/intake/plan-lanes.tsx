import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { type Plan, setUpBefore } from '@nibrel/core/planner/plan';
import { bitMark, opLine, duration } from '@nibrel/core/planner/words';

interface Bar {
  readonly id: string;
  readonly lane: string;
  readonly from: number;
  readonly seconds: number;
  readonly title: string;
}

/** The whole plan on one axis: a lane for each tool, one for bare hands, one for waiting. */
export function PlanLanes({ map, plan }: { readonly map: DeviceMap; readonly plan: Plan }) {
  const { bars, span, turn } = barsOf(map, plan);
  const lanes = [...new Set(bars.map((bar) => bar.lane))].toSorted(
    (a, b) => Number(a === 'waiting') - Number(b === 'waiting'),
  );
  const share = (seconds: number) => `${(100 * seconds) / span}%`;
  return (
    <section aria-label="Plan on a time axis" className="border-t border-ink bg-mat px-6 py-3">
      <div className="grid grid-cols-[8.5rem_1fr] text-note">
        {lanes.map((lane) => (
          <Lane key={lane} lane={lane} bars={bars.filter((bar) => bar.lane === lane)} share={share} turn={turn} />
        ))}
        <span />
        <p className="flex justify-between pt-1 text-quiet">
          <span>0</span>
          <span style={{ marginLeft: share(Math.max(0, turn - span * 0.45)) }}>stripped at {duration(turn)}</span>
          <span>{duration(span)}</span>
        </p>
      </div>
    </section>
  );
}

function Lane({
  lane,
  bars,
  share,
  turn,
}: {
  lane: string;
  bars: readonly Bar[];
  share(seconds: number): string;
  turn: number;
}) {
  return (
    <>
      <span className="truncate pr-3 leading-[1.1rem]">{bitMark(lane)}</span>
      <div className="relative h-[1.1rem] border-b border-hair">
        <div className="absolute inset-y-0 border-l border-now" style={{ left: share(turn) }} />
        {bars.map((bar) => (
          <div
            key={bar.id}
            title={bar.title}
            className={`absolute inset-y-1 ${lane === 'waiting' ? 'hatched border border-quiet' : 'bg-ink'}`}
            style={{ left: share(bar.from), width: share(bar.seconds) }}
          />
        ))}
      </div>
    </>
  );
}

function barsOf(map: DeviceMap, plan: Plan): { bars: Bar[]; span: number; turn: number } {
  const bars: Bar[] = [];
  let at = 0;
  let turn = 0;
  const add = (op: Op, setUp_s: number) => {
    at += setUp_s;
    const title = opLine(map, op);
    if (op.seconds > 0) bars.push({ id: op.id, lane: op.tool ?? 'by hand', from: at, seconds: op.seconds, title });
    at += op.seconds;
    if (op.wait_s)
      bars.push({ id: `${op.id} wait`, lane: 'waiting', from: at, seconds: op.wait_s, title: `${title}: wait` });
    at += op.wait_s ?? 0;
  };
  // as the plan counts them: changes of tool and face stand before what they are for
  const [down, up] = [setUpBefore(plan.strip), setUpBefore(plan.rebuild)];
  plan.strip.forEach((op, index) => add(op, down[index]!));
  turn = at;
  plan.rebuild.forEach((op, index) => add(op, up[index]!));
  return { bars, span: Math.max(1, at), turn };
}
