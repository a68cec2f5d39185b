import Joi from 'joi';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import type { SpillSolved } from '@nibrel/core/screws/mix-ups';
import { screwLetters } from '@nibrel/core/screws/screws';
import { heldName, plural, pointPlace } from '@nibrel/core/planner/words';
import { useState } from 'react';
import { computeNow } from '../workers/compute.ts';
import { useQuery } from '@tanstack/react-query';
import { shopQuery } from '../app/queries.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Field } from '../ui/field.tsx';
import { ScrewMark } from '../ui/screw-mark.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { figure, picked } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';
import { NONE_PICKED_UP, type PickedUp, usePickedUp } from './picked-up.ts';
import { useCaliper } from './use-caliper.ts';

interface SpillProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  send<Type extends keyof EventData>(type: Type, data: EventData[Type]): Promise<boolean>;
}

const schema = Joi.object<{ length: number; drive: string }>({
  length: figure('A length in mm, more than 0 and up to 200', { over: 0, most: 200 }),
  drive: picked(),
});

/** The mat was spilled: what was picked up is measured, sorted back to its holes, and put into the ledger. */
export function Spill({ map, state, send }: SpillProps) {
  const { onMat } = state.ledger;
  const letters = screwLetters(map);
  const job = state.job.id;
  const { loose, simulated } = usePickedUp(({ byJob }) => byJob[job] ?? NONE_PICKED_UP);
  const setPickedUp = usePickedUp((store) => store.set);
  const [solved, setSolved] = useState<SpillSolved | null>(null);
  // what was sorted stays in sight once it is in the ledger
  const [sorted, setSorted] = useState<readonly PickedUp[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const [isTaken, setTaken] = useState(false);
  const drives = [...new Set(map.fasteners.map(({ drive }) => drive))];
  const { field, pick, sent, setValue } = useFields<
    { length: string; drive: string },
    { length: number; drive: string }
  >(schema, { length: '', drive: '' });
  const change = (now: readonly PickedUp[]) => {
    setPickedUp(job, (before) => ({ loose: now, simulated: now.length > 0 && before.simulated }));
    setSolved(null);
    setTaken(false);
  };
  const add = (length_mm: number, drive: string | null, isSimulated = false) => {
    setPickedUp(job, (before) => ({
      loose: [...before.loose, { id: nextId(before.loose), length_mm, drive }],
      simulated: before.simulated || isSimulated,
    }));
    setSolved(null);
    setTaken(false);
  };
  const caliper = useCaliper(({ length_mm, drive }) => {
    add(length_mm, drive, true);
  });
  const hasCaliper = useQuery(shopQuery).data?.standIns === true;
  const layIn = () => {
    change([]);
    const screws = onMat.map(({ fastener, length_mm }) => {
      const kind = map.fasteners.find(({ id }) => id === fastener)!;
      return { length_mm: length_mm ?? kind.length, drive: kind.drive };
    });
    caliper.start(screws, { spilled: true, seed: 4 });
  };
  const solve = async () => {
    const found = await computeNow().spill(map, { onMat }, loose, state.limits);
    setSolved('value' in found ? found.value : null);
    setSorted(loose);
    setProblem('problem' in found ? found.problem : null);
  };
  const accept = async () => {
    if (!solved) return;
    const placed = solved.returned.flatMap(({ loose: id, hole, p }) =>
      hole ? [{ loose: id, joint: hole.joint, point: hole.point, p }] : [],
    );
    const isAccepted = await send('spill', { loose: [...loose], placed, ...(simulated ? { simulated } : {}) });
    setTaken(isAccepted);
    if (isAccepted) setPickedUp(job, () => NONE_PICKED_UP);
  };
  if (onMat.length === 0) {
    return (
      <section aria-label="Spilled">
        <h2 className="text-far font-bold">Nothing lies on the mat</h2>
        <p className="text-body text-quiet">What is spilled can be sorted once screws are out.</p>
      </section>
    );
  }
  return (
    <section aria-label="Spilled">
      <h2 className="text-far font-bold">Screws spilled</h2>
      <p className="text-body text-quiet">
        {plural(onMat.length, 'screw')} lay there. Pick up what you find, in any order, and measure each: all kinds by{' '}
        {[...new Set(onMat.map(({ fastener }) => letters.get(fastener)!.letter))].toSorted().join(', ')}.
      </p>
      <form
        className="mt-3 flex flex-wrap items-end gap-3"
        onSubmit={sent(({ length, drive }) => {
          add(length, drive || null);
          setValue('length', '');
        })}
      >
        <Field label="Length, mm" inputMode="decimal" autoComplete="off" {...field('length')} />
        <SelectField
          id="spill-drive"
          label="Drive"
          options={[{ value: '', label: 'not looked at' }, ...drives.map((value) => ({ value, label: value }))]}
          {...pick('drive')}
        />
        <Button type="submit">Add it</Button>
        {hasCaliper && (
          <Button disabled={caliper.isOn} onClick={layIn}>
            {caliper.isOn ? 'Measuring' : 'From the caliper (simulated)'}
          </Button>
        )}
      </form>
      {caliper.problem && (
        <Trouble title="No caliper">
          <p>{caliper.problem}</p>
        </Trouble>
      )}
      <p role="status" className="mt-3 text-lead">
        {plural(isTaken ? sorted.length : loose.length, 'screw')} picked up
        {loose.length > onMat.length ? ', more than lay there' : ''}
      </p>
      <div className="mt-1 flex flex-wrap gap-2">
        <Button weight="loud" disabled={loose.length === 0 || caliper.isOn} onClick={() => void solve()}>
          Sort them back
        </Button>
        {loose.length > 0 && <Button onClick={() => change([])}>Begin again</Button>}
      </div>
      {problem && (
        <Trouble title="Not sorted">
          <p>{problem}</p>
        </Trouble>
      )}
      {!solved && loose.length > 0 && (
        <ul aria-label="Picked up" className="mt-3 flex max-h-60 flex-wrap gap-2 overflow-y-auto">
          {loose.map(({ id, length_mm, drive }) => (
            <li key={id}>
              <Button
                aria-label={`Take back ${length_mm} mm`}
                onClick={() => change(loose.filter((each) => each.id !== id))}
              >
                {length_mm} mm {drive ?? ''}
              </Button>
            </li>
          ))}
        </ul>
      )}
      {solved && <Sorted map={map} solved={solved} loose={sorted} />}
      {solved && (
        <div className="mt-4">
          <Button weight="loud" disabled={isTaken} onClick={() => void accept()}>
            {isTaken ? 'In the ledger' : 'Take it into the ledger'}
          </Button>
        </div>
      )}
    </section>
  );
}

function nextId(before: readonly PickedUp[]): string {
  return String(1 + Math.max(0, ...before.map(({ id }) => Number(id))));
}

interface SortedProps {
  readonly map: DeviceMap;
  readonly solved: SpillSolved;
  readonly loose: readonly PickedUp[];
}

/** What goes where, what is ambiguous, what belongs nowhere, and which holes will lack one. */
function Sorted({ map, solved, loose }: SortedProps) {
  const letters = screwLetters(map);
  const lengths = new Map(loose.map(({ id, length_mm }) => [id, length_mm]));
  const kinds = [...new Set(solved.returned.flatMap(({ hole }) => hole?.fastener ?? []))].toSorted((a, b) =>
    letters.get(a)!.letter < letters.get(b)!.letter ? -1 : 1,
  );
  const unsure = solved.returned.filter(({ isAmbiguous }) => isAmbiguous);
  const strangers = solved.returned.filter(({ hole }) => hole === null);
  return (
    <div aria-live="polite" className="mt-4 grid gap-x-8 gap-y-4 lg:grid-cols-2">
      <div>
        <h3 className="text-lead font-bold">Back to their holes</h3>
        <ul className="border-t border-ink">
          {kinds.map((kind) => {
            const own = solved.returned.filter(({ hole }) => hole?.fastener === kind);
            return (
              <li key={kind} className="border-b border-hair py-1.5 text-body">
                <p className="flex flex-wrap items-center gap-x-4">
                  <ScrewMark mark={letters.get(kind)!} />
                  <b>× {own.length}</b>
                  <span className="text-quiet">
                    measured {own.map((each) => lengths.get(each.loose)).join(', ')} mm
                  </span>
                </p>
                <p className="text-quiet">
                  {[...new Set(own.map(({ hole }) => hole!.joint))]
                    .map(
                      (joint) =>
                        `${heldName(map, joint)} ${own
                          .filter(({ hole }) => hole!.joint === joint)
                          .map(({ hole }) => hole!.point)
                          .join(', ')}`,
                    )
                    .join(' · ')}
                </p>
              </li>
            );
          })}
        </ul>
      </div>
      <div className="flex flex-col gap-4">
        <section aria-label="Ambiguous">
          <h3 className="text-lead font-bold">
            {unsure.length === 0 ? 'None is ambiguous' : `${plural(unsure.length, 'screw')} ambiguous`}
          </h3>
          <ul>
            {unsure.map(({ loose: id, kinds: can, harm }) => (
              <li key={id} className="flex flex-wrap gap-x-4 border-b border-hair py-1 text-body">
                <span>{lengths.get(id)} mm</span>
                {can.slice(0, 3).map(({ fastener, p }) => (
                  <span key={fastener}>
                    <b>{fastener === null ? 'a stranger' : letters.get(fastener)!.letter}</b> {Math.round(p * 100)} %
                  </span>
                ))}
                <span className={harm ? 'font-bold text-now' : 'text-done'}>
                  {harm ? harm.text : 'no harm either way'}
                </span>
              </li>
            ))}
          </ul>
          {unsure.length > 0 && (
            <p className="text-note text-quiet">
              Measure these again, or look at heads and threads: One in doubt says what would tell.
            </p>
          )}
        </section>
        {strangers.length > 0 && (
          <section aria-label="Strangers">
            <h3 className="text-lead font-bold">{plural(strangers.length, 'screw')} from elsewhere</h3>
            <p className="text-body">
              {strangers.map(({ loose: id }) => `${lengths.get(id)} mm`).join(', ')}: put aside, not into this device.
            </p>
          </section>
        )}
        <section aria-label="Missing">
          <h3 className="text-lead font-bold">
            {solved.missing.length === 0
              ? 'No hole will lack one'
              : `${plural(solved.missing.length, 'hole')} will lack one`}
          </h3>
          <ul className="text-body">
            {solved.missing.map(({ joint, point, fastener }) => (
              <li key={`${joint}/${point}`} className="flex items-center gap-4 border-b border-hair py-1">
                <ScrewMark mark={letters.get(fastener)!} /> {heldName(map, joint)}, {pointPlace(map, joint, point)}
              </li>
            ))}
          </ul>
        </section>
      </div>
    </div>
  );
}
