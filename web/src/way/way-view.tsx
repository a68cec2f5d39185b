import { benchUnit } from '../app/units.ts';
import type { JobState } from '@nibrel/core/job/state';
import { applied, type DeviceState, isDead, type Mechanism, numberedOp } from '@nibrel/core/planner/holds';
import { cautionFor, isGate, opWords, duration } from '@nibrel/core/planner/words';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { isDelicate } from '@nibrel/core/workshop/prepare';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { faceOf, shownOf } from '@nibrel/core/drawn/shown';
import { useKeys } from '../app/keys.ts';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { mainSide, type Side } from '@nibrel/core/drawn/places';
import { JobFrame, type OpenJob } from '../job/job-frame.tsx';
import { JobHeader } from '../job/job-header.tsx';
import { Button } from '../ui/button.tsx';
import { Caution } from '../ui/caution.tsx';
import { Choice } from '../ui/choice.tsx';
import { useWhereToTry } from '../trying/use-where-to-try.ts';
import { worthTrying } from '@nibrel/core/bench/trying';
import { WayStrip } from './way-strip.tsx';

/** The whole way once, like a film at one's own pace: what comes off in which order, what is delicate, where it waits. */
export function WayView() {
  return <JobFrame>{(job) => <Film {...job} />}</JobFrame>;
}

/** How long a step is shown, by the pace. */
const PACES = { slow: 4000, steady: 2000, quick: 800 } as const;
type Pace = keyof typeof PACES;

function Film({ bench, mechanism, map, state }: OpenJob) {
  const navigate = useNavigate();
  // what is settled before the device is touched is no part of the film
  const ops = useMemo(() => bench.ahead?.ops.filter((op) => !isGate(op)) ?? [], [bench.ahead]);
  const frames = useMemo(() => framesOf(mechanism, state, ops), [mechanism, state, ops]);
  const where = useWhereToTry(map, state, bench.ahead?.plan);
  const [at, setAt] = useState(0);
  const [playing, setPlaying] = useState(false);
  const [pace, setPace] = useState<Pace>('steady');
  const last = Math.max(0, ops.length - 1);
  const shown = Math.min(at, last);
  const isRunning = playing && shown < last;
  useEffect(() => {
    if (!isRunning) return;
    const timer = setTimeout(() => setAt(shown + 1), PACES[pace]);
    return () => clearTimeout(timer);
  }, [isRunning, shown, pace]);

  const go = (to: number) => {
    setPlaying(false);
    setAt(Math.min(last, Math.max(0, to)));
  };
  const play = () => {
    if (!isRunning && shown === last) setAt(0);
    setPlaying(!isRunning);
  };
  const nextDelicate = () => {
    const index = ops.findIndex((op, n) => n > shown && isDelicate(map, op));
    if (index >= 0) go(index);
  };
  const toPrepare = () => void navigate(`/jobs/${state.job.id}/prepare`);
  useKeys({
    ' ': play,
    ArrowRight: () => go(shown + 1),
    ArrowLeft: () => go(shown - 1),
    PageDown: () => go(shown + 1),
    PageUp: () => go(shown - 1),
    Home: () => go(0),
    End: () => go(last),
    w: nextDelicate,
    Enter: toPrepare,
  });

  const op = ops[shown];
  if (!op) {
    return (
      <>
        <JobHeader mechanism={mechanism} map={map} state={state} />
        <p className="p-6 text-far text-quiet">
          {bench.planProblem ?? (bench.ahead ? 'Nothing is left to do' : 'Planning')}
        </p>
      </>
    );
  }
  const worth = worthTrying(map, where, op);
  const device = frames[shown]!;
  const side = sideAt(map, ops.slice(0, shown + 1));
  const words = opWords(map, op);
  const caution = cautionFor(map, op, isDead(mechanism, device), benchUnit());
  return (
    <>
      <JobHeader mechanism={mechanism} map={map} state={state} />
      <main className="grid min-h-0 grow lg:h-[calc(100dvh-6.7rem)] lg:grow-0 lg:grid-cols-[minmax(0,1fr)_26rem] lg:grid-rows-[minmax(0,1fr)_auto]">
        <div className="relative h-[55dvh] min-h-80 p-3 lg:h-auto lg:min-h-0">
          <DeviceDrawing
            map={map}
            side={side}
            {...shownOf(mechanism, { ...state, device }, op)}
            ops={[op]}
            label={`${map.name}, ${side} up`}
          />
          <p className="absolute bottom-2 left-4 text-note text-quiet">
            {side === 'front' ? 'Front up' : 'Back up, drawn mirrored'}
          </p>
        </div>
        <section
          aria-label="Step"
          className="flex flex-col gap-3 overflow-y-auto border-ink bg-sheet px-6 py-4 lg:border-l"
        >
          <p className="text-body text-quiet">
            {shown + 1} of {ops.length}
            {isDelicate(map, op) && <strong className="text-care"> · delicate</strong>}
            {op.wait_s ? <strong className="text-ink"> · waits {duration(op.wait_s)}</strong> : null}
          </p>
          <div aria-live="polite">
            <h2 className="text-loud leading-[1.08] font-bold">{words.title}</h2>
            <p className="mt-1 text-far leading-tight">{words.thing}</p>
          </div>
          {worth && <p className="text-body font-bold">{worth}</p>}
          {caution && <Caution>{caution}</Caution>}
          <p className="text-body text-quiet">
            {op.why} {op.whyNotEarlier}
          </p>
          <div className="mt-auto flex flex-col gap-2">
            <div className="grid grid-cols-[1fr_1.35fr_1fr] gap-2">
              <Button keyName="←" onClick={() => go(shown - 1)} disabled={shown === 0}>
                Back
              </Button>
              <Button weight="loud" keyName="Space" data-step="" onClick={play}>
                {isRunning ? 'Hold' : 'Run'}
              </Button>
              <Button keyName="→" onClick={() => go(shown + 1)} disabled={shown === last}>
                On
              </Button>
            </div>
            <Choice label="Pace" value={pace} onChange={setPace} options={['slow', 'steady', 'quick']} />
            <Button keyName="W" onClick={nextDelicate}>
              To the next delicate step
            </Button>
            <Button keyName="Enter" onClick={toPrepare}>
              Seen it: prepare
            </Button>
          </div>
        </section>
        <div className="border-t border-ink bg-mat px-6 py-3 lg:col-span-2">
          <WayStrip map={map} ops={ops} at={shown} onGo={go} />
        </div>
      </main>
    </>
  );
}

/** The device before each operation. */
function framesOf(mechanism: Mechanism, state: JobState, ops: readonly Op[]): DeviceState[] {
  let device = state.device;
  return ops.map((op) => {
    const before = device;
    if (op.kind !== 'procedure') {
      const { kind, joint, part, onto, staysOpen } = op;
      device = applied(mechanism, device, numberedOp(mechanism, { kind, joint, part, onto, staysOpen }));
    }
    return before;
  });
}

/** The side that lies up: an operation without a face leaves it as it was. */
function sideAt(map: DeviceMap, ops: readonly Op[]): Side {
  const faces = ops.map((op) => faceOf(map, op));
  return faces.findLast((face) => face === 'front' || face === 'back') ?? mainSide(map);
}
