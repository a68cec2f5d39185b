import { type DeviceMap, type Face, jointById } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { heldName } from '../../planner/words/index.ts';
import { type Hole, holesOf } from './holes.ts';
import { turnsOf } from './turns.ts';

/** The screws of one joint, as they come out: read before the first move. */
export interface ComingOut {
  readonly joint: string;
  /** *Connector lid* */
  readonly name: string;
  readonly face: Face;
  readonly tool: string | null;
  readonly kinds: readonly {
    readonly fastener: string;
    readonly count: number;
    /** it loosens and stays in its part */
    readonly isCaptive: boolean;
    readonly turns: number | null;
  }[];
  /** point ids in the order to loosen them; empty where the map gives none */
  readonly inOrder: readonly string[];
  /** what is odd about them: a magnet that does not hold, a clamp for two parts */
  readonly notes: readonly string[];
}

/** What comes out where and how many, in the order of a plan's strip-down. */
export function comingOut(map: DeviceMap, strip: readonly Pick<Op, 'kind' | 'joint' | 'face' | 'tool'>[]): ComingOut[] {
  return strip.flatMap(({ kind, joint: id, face, tool }) => {
    const joint = jointById(map, id);
    if (kind !== 'release' || joint?.type !== 'screw') return [];
    const holes = holesOf(map, [joint.id]);
    const ordered = joint.points.filter(({ outOrder }) => outOrder !== undefined);
    return [
      {
        joint: joint.id,
        name: heldName(map, joint),
        face: face ?? joint.face,
        tool,
        kinds: [...new Set(holes.map((hole) => hole.kind))].map((each) => {
          const own = holes.filter((hole) => hole.kind === each);
          return {
            fastener: each.id,
            count: own.length,
            isCaptive: each.captive === true,
            turns: turnsOf(map, own[0]!),
          };
        }),
        inOrder: ordered.toSorted((a, b) => a.outOrder! - b.outOrder!).map((point) => point.id),
        notes: notesOn(map, holes),
      },
    ];
  });
}

function notesOn(map: DeviceMap, holes: readonly Hole[]): string[] {
  const { joint } = holes[0]!;
  const some = (is: (hole: Hole) => boolean) => holes.some(is);
  return [
    ...(some(({ kind }) => kind.captive === true) ? ['captive: it loosens and stays in its part'] : []),
    ...(some(({ kind }) => kind.magnetic === false) ? ['no magnet holds it: tweezers ready, it falls'] : []),
    ...(some(({ kind }) => kind.drive.startsWith('stand-off')) ? ['a stand-off: another screw goes into it'] : []),
    ...(joint.holds.length > 1 ? [`one clamp for ${heldName(map, joint)}: both come free`] : []),
    ...(some(({ kind }) => kind.singleUse === true) ? ['a new one when it goes back'] : []),
    ...(joint.hint?.release ? [joint.hint.release] : []),
  ];
}
