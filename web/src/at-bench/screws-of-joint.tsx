import { type DeviceMap, fastenerAt, jointById } from '@nibrel/core/model/device-map';
import type { JobState } from '@nibrel/core/job/state';
import { turnsOf } from '@nibrel/core/screws/mix-ups';
import { keyOf, screwLetters } from '@nibrel/core/screws/screws';
import { plural } from '@nibrel/core/planner/words';
import { ScrewMark } from '../ui/screw-mark.tsx';

/** The screws of a joint: each kind as its mark, how many, and how many of them lie on the mat. */
export function ScrewsOfJoint({
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
              {letters.get(kind)!.isMeasured ? `${fastener.length} mm` : 'not measured'} × {points.length}
            </span>
            {out > 0 && <span className="text-body text-quiet">{out} on the mat</span>}
            {turns !== null && letters.get(kind)!.isMeasured && (
              <span className="text-body text-quiet">about {plural(turns, 'turn')}</span>
            )}
            {letters.get(kind)!.isMeasured && (
              <span className="text-body text-quiet">
                {fastener.thread}, head {fastener.head} mm
              </span>
            )}
            {fastener.colour && <span className="text-body text-quiet">{fastener.colour}</span>}
          </li>
        );
      })}
    </ul>
  );
}
