import type { DeviceMap } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import type { Limits } from '../../model/limits/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import { containersFor } from '../screws/index.ts';
import { harmOf } from './harm.ts';
import { type Hole, holesOf, type KindHoles, kindsIn } from './holes.ts';
import { takenFor } from './look-alike.ts';

/** What lies in one container, or at one place of the mat. */
export interface Kept {
  readonly name: string;
  readonly joints: readonly string[];
  readonly fasteners: readonly string[];
}

/** One way of keeping the screws that come out, and what it risks. */
export interface Keeping {
  readonly school: Policy['screws'];
  readonly kept: readonly Kept[];
  /** to be expected from screws that are taken for another, minutes of work */
  readonly risk_min: number;
  /** nothing is kept with less risk in so many containers */
  readonly isLeast: boolean;
}

/** Two kinds that lie together: how easily they are mixed up, and what it would cost. */
export interface LookAlike {
  readonly a: string;
  readonly b: string;
  readonly chance: number;
  /** of one pair that changes places, minutes */
  readonly hurt_min: number;
  readonly risk_min: number;
}

/** The pairs of kinds that come out, the riskiest first; those that no mix-up hurts are left out. */
export function lookAlikes(map: DeviceMap, joints: readonly string[] | undefined, limits: Limits): LookAlike[] {
  const kinds = kindsIn(holesOf(map, joints));
  return kinds
    .flatMap((a, at) => kinds.slice(at + 1).map((b) => pairOf(a, b, limits)))
    .filter(({ risk_min }) => risk_min > 0)
    .toSorted((a, b) => b.risk_min - a.risk_min || (a.a + a.b < b.a + b.b ? -1 : 1));
}

function pairOf(a: KindHoles, b: KindHoles, limits: Limits): LookAlike {
  const chance = takenFor(a.kind, b.kind, limits);
  const hurt_min = meanHarm(a, b, limits) + meanHarm(b, a, limits);
  const pairs = Math.min(a.holes.length, b.holes.length);
  return { a: a.kind.id, b: b.kind.id, chance, hurt_min, risk_min: chance * hurt_min * pairs };
}

/** Of one screw of the first kind in a hole of the second, over these as they come. */
function meanHarm({ kind }: KindHoles, { kind: right, holes }: KindHoles, limits: Limits): number {
  const each = holes.map(({ point }) => harmOf(kind, right, point, limits)?.minutes ?? 0);
  return each.reduce((sum, one) => sum + one, 0) / each.length;
}

function riskTogether(holes: readonly Hole[], limits: Limits): number {
  const kinds = kindsIn(holes);
  return kinds.reduce(
    (sum, a, at) => kinds.slice(at + 1).reduce((more, b) => more + pairOf(a, b, limits).risk_min, sum),
    0,
  );
}

/** The strip-down's screw joints in their order, with the stage in which each is undone. */
type Undone = Pick<Op, 'kind' | 'joint' | 'stage'>;

/**
 * The three ways of keeping what comes out: laid at its place on a map mat, one container per stage, and so many containers
 * chosen so that the risk is least. On a mat nothing is mixed until it is knocked; then everything is.
 * @throws Refusal where the containers are no whole number of 1 and more
 */
export function keepings(map: DeviceMap, strip: readonly Undone[], limits: Limits): Keeping[] {
  const undone = screwJoints(map, strip);
  const holes = holesOf(map, undone);
  const onMat: Kept[] = undone.map((joint) => kept(joint, holesOf(map, [joint])));
  const all_min = riskTogether(holes, limits) * limits.matKnocked;
  const stages = [...new Set(strip.map(({ stage }) => stage))];
  const perStage = stages.flatMap((stage) => {
    const own = holesOf(
      map,
      screwJoints(
        map,
        strip.filter((op) => op.stage === stage),
      ),
    );
    return own.length === 0 ? [] : [{ holes: own, name: STAGE_NAMES[stage] ?? stage }];
  });
  const chosen = chosenApart(holes, limits);
  return [
    { school: 'map-mat', kept: onMat, risk_min: all_min, isLeast: all_min === 0 },
    {
      school: 'containers-per-stage',
      kept: perStage.map(({ name, holes: own }, at) => kept(`Container ${at + 1}, ${name}`, own)),
      risk_min: perStage.reduce((sum, { holes: own }) => sum + riskTogether(own, limits), 0),
      isLeast: false,
    },
    chosen,
  ];
}

const STAGE_NAMES: Readonly<Record<string, string>> = { open: 'getting in', strip: 'inside', prepare: 'first' };

function chosenApart(holes: readonly Hole[], limits: Limits): Keeping {
  const kinds = kindsIn(holes);
  if (kinds.length === 0) return { school: 'containers-apart', kept: [], risk_min: 0, isLeast: true };
  const cost = kinds.map(() => kinds.map(() => 0));
  kinds.forEach((a, i) =>
    kinds.slice(i + 1).forEach((b, next) => {
      const j = i + 1 + next;
      cost[i]![j] = cost[j]![i] = pairOf(a, b, limits).risk_min;
    }),
  );
  const ids = kinds.map(({ kind }) => kind.id);
  const split = containersFor({ classes: ids, cost, containers: limits.containers });
  return {
    school: 'containers-apart',
    kept: split.groups.map((group, at) =>
      kept(
        `Container ${at + 1}`,
        holes.filter(({ kind }) => group.includes(kind.id)),
      ),
    ),
    risk_min: split.cost,
    isLeast: split.optimal,
  };
}

function kept(name: string, holes: readonly Hole[]): Kept {
  return {
    name,
    joints: [...new Set(holes.map(({ joint }) => joint.id))],
    fasteners: kindsIn(holes).map(({ kind }) => kind.id),
  };
}

function screwJoints(map: DeviceMap, strip: readonly Undone[]): string[] {
  const screws = new Set(map.joints.flatMap((each) => (each.type === 'screw' ? [each.id] : [])));
  return [
    ...new Set(strip.flatMap(({ kind, joint }) => (kind === 'release' && screws.has(joint ?? '') ? [joint!] : []))),
  ];
}
