import { memo, useMemo } from 'react';
import { type JobState, putOn } from '@nibrel/core/job/state';
import { type DeviceMap, jointById } from '@nibrel/core/model/device-map';
import { heldName, plural, duration } from '@nibrel/core/planner/words';
import type { Op } from '@nibrel/core/planner/drafts';
import { counts, keyOf, looseScrewsOf, type Screw, screwLetters } from '@nibrel/core/screws/screws';
import type { Kept } from '@nibrel/core/screws/mix-ups';
import { type Leaving, lyingParts } from '@nibrel/core/bench/in-hand';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { Key } from '../ui/button.tsx';
import { Scrolled } from '../ui/scrolled.tsx';
import { ScrewMark } from '../ui/screw-mark.tsx';

interface MatProps {
  readonly mechanism: Mechanism;
  /** the containers that screws are kept in; empty on a map mat */
  readonly containers: readonly Kept[];
  readonly state: JobState;
  readonly ahead: readonly Op[];
  readonly now: Op | undefined;
  readonly leaving: Leaving;
  onLeaving(): void;
}

/** The mat is the memory: where each screw lies now, which place it came from, and what will still come out. */
export const Mat = memo(function Mat({ mechanism, containers, state, ahead, now, leaving, onLeaving }: MatProps) {
  const { map } = mechanism;
  const parts = useMemo(() => lyingParts(mechanism, state), [mechanism, state]);
  const { out, onMat, back, lost } = counts(state.ledger);
  const on = putOn(map, state);
  const toCome = ahead
    .filter((op) => op.kind === 'release')
    .reduce((sum, op) => sum + looseScrews(map, state, op.joint!).length, 0);
  // what no container was meant for is shown at its place: nothing that is out may be out of sight
  const isKept = ({ joint, fastener }: Screw) =>
    containers.some((each) => each.joints.includes(joint) && each.fasteners.includes(fastener));
  const outside = state.ledger.onMat.filter((screw) => !isKept(screw));
  const places = [...new Set(outside.map((screw) => screw.joint))];
  // once the first of a joint lies there, its place is no longer a ghost
  const isBegun = state.ledger.onMat.some(({ joint }) => joint === now?.joint);
  const expected = now?.kind === 'release' && !isBegun ? looseScrews(map, state, now.joint!) : [];
  const expectedOutside = expected.filter((screw) => !isKept(screw));
  return (
    <section aria-label="Mat" className="flex min-h-0 grow flex-col gap-3 bg-mat px-4 py-4">
      <dl className="flex justify-between gap-x-2 whitespace-nowrap">
        <Count value={onMat} label="on mat" />
        <Count value={back} label="back" />
        <Count value={toCome} label="to come" />
      </dl>
      {on.length > 0 && (
        <ul aria-label="Still on" className="text-body">
          {on.map(({ id, text }) => (
            <li key={id} className="border-b border-hair py-0.5">
              {text}
            </li>
          ))}
        </ul>
      )}
      {lost > 0 && (
        <p role="status" className="font-bold text-now">
          {lost === 1 ? '1 screw is' : `${lost} screws are`} missing
        </p>
      )}
      <Scrolled label="Places">
        {containers.length > 0 && (
          <Containers map={map} containers={containers} onMat={state.ledger.onMat} expected={expected} />
        )}
        {expectedOutside.length > 0 && (
          <Place map={map} title={heldName(map, now!.joint!)} screws={expectedOutside} ghost />
        )}
        {places.toReversed().map((joint) => (
          <Place
            key={joint}
            map={map}
            title={heldName(map, joint)}
            screws={outside.filter((screw) => screw.joint === joint)}
          />
        ))}
        {parts.length > 0 && (
          <ul aria-label="Parts" className="text-body">
            {parts.map(({ id, text }) => (
              <li key={id} data-lies className="border-b border-hair py-0.5">
                {text}
              </li>
            ))}
          </ul>
        )}
        {onMat === 0 && expected.length === 0 && parts.length === 0 && (
          <p className="text-body text-quiet">
            {out > 0 ? 'Everything that came out is back in.' : 'Nothing lies on the mat.'}
          </p>
        )}
      </Scrolled>
      <button
        type="button"
        onClick={onLeaving}
        className="mt-auto flex min-h-12 items-center justify-between gap-2 border-t border-quiet text-left text-body"
      >
        <span>{leavingWords(leaving)}</span>
        <Key name="Z" />
      </button>
    </section>
  );
});

interface ContainersProps {
  readonly map: DeviceMap;
  readonly containers: readonly Kept[];
  readonly onMat: readonly Screw[];
  /** what comes out now: the container that it goes into is the one in hand */
  readonly expected: readonly Screw[];
}

/** What lies in which container, and where the screws in hand go. */
function Containers({ map, containers, onMat, expected }: ContainersProps) {
  return containers.map((container) => {
    const isIn = ({ joint, fastener }: Screw) =>
      container.joints.includes(joint) && container.fasteners.includes(fastener);
    const coming = expected.filter(isIn);
    const lying = onMat.filter(isIn);
    if (coming.length === 0 && lying.length === 0) return null;
    return (
      <div key={container.name} className="flex flex-col gap-1">
        {coming.length > 0 && <Place map={map} title={`Into ${container.name.toLowerCase()}`} screws={coming} ghost />}
        {lying.length > 0 && <Place map={map} title={container.name} screws={lying} />}
      </div>
    );
  });
}

function leavingWords({ mayLeave, bad, next, isStopped }: Leaving): string {
  if (isStopped) return 'Not left alone';
  if (mayLeave) return 'Safe to leave now';
  const { in_s, text } = bad[0]!;
  if (in_s !== null) return `${text.includes('re-sets') ? 'Glue re-sets' : 'Turns bad'} in ${duration(in_s)}`;
  return next ? `Safe to leave after ${plural(next.steps, 'step')}` : 'Not to be left like this';
}

function looseScrews(map: DeviceMap, state: JobState, jointId: string): Screw[] {
  const joint = jointById(map, jointId);
  return joint?.type === 'screw' ? looseScrewsOf(map, joint, state.ledger) : [];
}

function Count({ value, label }: { readonly value: number; readonly label: string }) {
  return (
    <div>
      <dd className="text-far leading-none font-bold">{value}</dd>
      <dt className="mt-0.5 text-note text-quiet">{label}</dt>
    </div>
  );
}

interface PlaceProps {
  readonly map: DeviceMap;
  readonly title: string;
  readonly screws: readonly Screw[];
  readonly ghost?: boolean;
}

/** One place on the mat: screws of a kind share a line, but keep their length where one was found different. */
function Place({ map, title, screws, ghost = false }: PlaceProps) {
  const letters = screwLetters(map);
  const kinds = [...new Set(screws.map((screw) => screw.fastener))];
  return (
    <div
      data-lies
      className={ghost ? 'border border-dashed border-now px-2 py-1 text-now' : 'border-b border-hair pb-1'}
    >
      <p className="text-note">{title}</p>
      {kinds.map((kind) => {
        const own = screws.filter((screw) => screw.fastener === kind);
        const odd = own.filter((screw) => screw.length_mm !== undefined || screw.isUnsure);
        return (
          <p
            key={kind}
            className="flex flex-wrap items-center gap-x-2"
            aria-label={`${letters.get(kind)!.letter}, ${own.length}`}
          >
            <ScrewMark mark={letters.get(kind)!} ghost={ghost} />
            <span className="text-body whitespace-nowrap">× {own.length}</span>
            {odd.map((screw) => (
              <span key={keyOf(screw)} className="text-note">
                {screw.isUnsure ? 'one is in doubt' : `one is ${screw.length_mm} mm`}
              </span>
            ))}
          </p>
        );
      })}
    </div>
  );
}
