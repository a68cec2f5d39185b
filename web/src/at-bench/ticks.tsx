import { type DeviceMap, fastenerAt, jointById } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import type { JobState } from '@nibrel/core/job/state';
import { turnsOf } from '@nibrel/core/screws/mix-ups';
import { keyOf, screwLetters } from '@nibrel/core/screws/screws';
import { bitMark, opWords, plural } from '@nibrel/core/planner/words';
import { plugsTogether } from '../job/shown.ts';
import { ScrewMark } from '../ui/screw-mark.tsx';

interface TicksProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly ops: readonly Op[];
  readonly lead: Op;
  onTick(op: Op): void;
}

/**
 * What belongs to the step in hand, each a tick of its own for who wants it; the main button takes them all. What is to be
 * known of each, its screws and its tool stand with it, since it has no screen of its own.
 */
export function Ticks({ map, state, ops, lead, onTick }: TicksProps) {
  // as they are numbered on the drawing
  const plugs = plugsTogether(map, ops);
  return (
    <ol aria-label="In this step" className="flex flex-col text-lead">
      {ops.map((op) => {
        const { title, thing, hint } = opWords(map, op);
        const joint = jointById(map, op.joint);
        const tool = op.tool !== null && op.tool !== lead.tool ? `, ${bitMark(op.tool)}` : '';
        return (
          <li key={op.id} className="border-b border-hair">
            <button
              type="button"
              className="flex min-h-12 w-full items-center gap-3 text-left hover:bg-mat"
              onClick={() => onTick(op)}
            >
              <span aria-hidden="true" className="inline-block size-4 shrink-0 border-2 border-ink" />
              <span>
                {plugs.includes(op) && (
                  <span aria-hidden="true" className="font-bold text-now">
                    {plugs.indexOf(op) + 1}{' '}
                  </span>
                )}
                <span className={op === lead ? 'font-bold' : ''}>{title}</span>
                {op !== lead && (
                  <span className="text-body text-quiet">
                    {' '}
                    {thing}
                    {tool}
                  </span>
                )}
                {op !== lead && hint && <span className="block text-body text-quiet">{hint}</span>}
              </span>
            </button>
            {op !== lead && joint?.type === 'screw' && <Screws map={map} state={state} jointId={joint.id} />}
          </li>
        );
      })}
    </ol>
  );
}

/** The screws of a joint: each kind as its mark, how many, and how many of them lie on the mat. */
export function Screws({
  map,
  state,
  jointId,
}: {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly jointId: string;
}) {
  const joint = jointById(map, jointId);
  if (joint?.type !== 'screw') return null;
  const letters = screwLetters(map);
  const kinds = [...new Set(joint.points.map((point) => fastenerAt(joint, point)))];
  const laid = new Set(state.ledger.onMat.map(keyOf));
  return (
    <ul className="flex flex-col gap-1 text-lead">
      {kinds.map((kind) => {
        const points = joint.points.filter((point) => fastenerAt(joint, point) === kind);
        const out = points.filter((point) => laid.has(keyOf({ joint: joint.id, point: point.id }))).length;
        const fastener = map.fasteners.find((each) => each.id === kind)!;
        const turns = turnsOf(map, { joint, kind: fastener });
        return (
          <li key={kind} className="flex flex-wrap items-center gap-x-4">
            <ScrewMark mark={letters.get(kind)!} />
            <span>
              {fastener.length} mm × {points.length}
            </span>
            {out > 0 && <span className="text-body text-quiet">{out} on the mat</span>}
            {turns !== null && <span className="text-body text-quiet">about {plural(turns, 'turn')}</span>}
            <span className="text-body text-quiet">
              {fastener.thread}, head {fastener.head} mm
            </span>
            {fastener.colour && <span className="text-body text-quiet">{fastener.colour}</span>}
          </li>
        );
      })}
    </ul>
  );
}
