import { kitFor } from '@nibrel/core/after/kit';
import { askedInPreparing, BESIDE_PREPARING, type Draft, NO_DRAFT } from '@nibrel/core/asking/preparing';
import { type Gives, NOTHING_ASKED, type Question, type Turns } from '@nibrel/core/asking/question';
import { partById } from '@nibrel/core/model/device-map';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNow } from '../app/now.ts';
import { partsQuery, shopQuery } from '../app/queries.ts';
import { NotePanel } from '../at-bench/panels/note-panel.tsx';
import { TargetPanel } from '../at-bench/panels/target-panel.tsx';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { fromTheTop, mainSide, type Side } from '@nibrel/core/drawn/places';
import { StageFrame } from '../frame/stage-frame.tsx';
import { JobFrame, type OpenJob } from '../job/job-frame.tsx';
import { shownOf } from '@nibrel/core/drawn/shown';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Meter } from './meter.tsx';
import { PinHoles } from './pin-holes.tsx';
import { SchoolsPanel } from './schools-panel.tsx';
import { WhileOpenPanel } from './while-open-panel.tsx';

/** Everything up to the moment the device may be opened: parts, owner, charge, kit, bench, each asked by itself. */
export function PrepareView() {
  return <JobFrame>{(job) => <Prepare {...job} />}</JobFrame>;
}

function Prepare(job: OpenJob) {
  const { bench, mechanism, map, state } = job;
  const shop = useQuery(shopQuery).data;
  const desk = useQuery(partsQuery).data;
  const now = useNow(() => (state.timers.length > 0 ? 500 : 10_000));
  const [draft, setDraft] = useState<Draft>(NO_DRAFT);
  // while it is planned anew what was there stays in sight
  const ahead = bench.lastAhead;
  const kit = useMemo(
    () => (ahead && shop ? kitFor(map, ahead.plan, new Set(shop.tools), shop.stock) : null),
    [map, ahead, shop],
  );
  // what stands in a field is known before it is shown
  const turns: Turns =
    ahead && shop && desk
      ? askedInPreparing({
          mechanism,
          state,
          ahead,
          kit,
          desk: { today: shop.today, window_days: shop.limits.returnWindow_days },
          usualSource: desk.toSorted((a, b) => (a.arrived < b.arrived ? 1 : -1))[0]?.source ?? '',
          draft,
          now,
        })
      : PLANNING;
  const part = (question: Question) => question.id.startsWith('part:') && question.id.slice('part:'.length);
  return (
    <StageFrame
      job={job}
      name="Prepare"
      turns={turns}
      beside={BESIDE_PREPARING}
      isUnsettled={bench.ahead === null && bench.planProblem === null}
      onMark={(marked) => setDraft(withMark(draft, marked))}
      above={
        bench.planProblem && (
          <Trouble title="No plan from here">
            <p>{bench.planProblem}</p>
            <Button className="mt-2" onClick={bench.planAgain}>
              Plan again
            </Button>
          </Trouble>
        )
      }
      renderBody={({ id }) => (
        <>
          {id === 'charge' && shop?.standIns && ahead?.charge?.way === 'run-down' && (
            <Meter job={job} need={ahead.charge} />
          )}
          {id === 'bench' && <PinHoles map={map} />}
        </>
      )}
      renderWhere={(question) => <WayIn job={job} part={part(question) || null} />}
      renderSheets={(open, close) => (
        <>
          <NotePanel open={open === 'note'} onClose={close} onNote={(text) => void bench.send('note', { text })} />
          <TargetPanel
            map={map}
            targets={state.targets}
            open={open === 'target'}
            onClose={close}
            onTargets={(targets) => void bench.send('targets', { targets })}
          />
          <SchoolsPanel job={job} open={open === 'schools'} onClose={close} />
          {ahead && <WhileOpenPanel job={job} plan={ahead.plan} open={open === 'while-open'} onClose={close} />}
        </>
      )}
    />
  );
}

const PLANNING: Turns = [
  {
    name: 'Planning',
    said: '',
    isDone: false,
    question: { ...NOTHING_ASKED, id: 'planning', title: 'Planning from here' },
  },
];

function withMark(draft: Draft, { mark, items, reason = '' }: Extract<Gives, { kind: 'mark' }>): Draft {
  switch (mark) {
    case 'done': {
      const [item] = items;
      const done = new Set(draft.done);
      if (!done.delete(item!)) done.add(item!);
      return { ...draft, done };
    }
    case 'without':
      return { ...draft, without: new Map([...draft.without, ...items.map((item) => [item, reason] as const)]) };
    case 'passed':
      return { ...draft, passed: new Set([...draft.passed, ...items]) };
    case 'here':
      return { ...draft, passed: new Set([...draft.passed].filter((each) => !items.includes(each))) };
  }
}

/** The device as it lies, peeled down to the part that is asked about. */
function WayIn({ job: { mechanism, map, state }, part }: { readonly job: OpenJob; readonly part: string | null }) {
  const asked = part ?? state.targets.flatMap((each) => ('replace' in each ? [each.replace] : []))[0] ?? null;
  const face = partById(map, asked)?.face;
  const side: Side = face === 'front' || face === 'back' ? face : mainSide(map);
  const peeled = Math.max(
    0,
    fromTheTop(map, side).findIndex(({ id }) => id === asked),
  );
  return (
    <div className="h-[48dvh] p-3 md:h-full">
      <DeviceDrawing
        map={map}
        side={side}
        {...shownOf(mechanism, state, undefined)}
        selected={asked}
        peeled={peeled}
        label={`${map.name}, ${side} up`}
      />
    </div>
  );
}
