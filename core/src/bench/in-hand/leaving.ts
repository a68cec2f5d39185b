import { type DeviceMap, isOuter, jointById, tabsOf } from '../../model/device-map/index.ts';
import { type Op, opId } from '../../planner/drafts/index.ts';
import { applied, type DeviceState, isDead, type Mechanism, numberedOp, OFF, OPEN } from '../../planner/holds/index.ts';
import { dropsOf, type JobState, lastWarmed } from '../../job/state/index.ts';
import { partName, thingName } from '../../planner/words/index.ts';
import { cutInHand } from './cut-in-hand.ts';
import { edgeInHand } from './edge-in-hand.ts';
import type { WarmBond } from './warm-bond.ts';

/** Something that turns bad where a repair is left as it lies. */
export interface TurnsBad {
  readonly text: string;
  /** in about so many seconds; null: at once, or whenever somebody comes by */
  readonly in_s: number | null;
  /** it is worth a thought, and no reason to stay */
  readonly isSlight: boolean;
}

export interface Leaving {
  /** the soonest first, slight ones last */
  readonly bad: readonly TurnsBad[];
  readonly mayLeave: boolean;
  /** how far it is to where it may be left; null where it may now, or nothing ahead is any better */
  readonly next: { readonly steps: number; readonly seconds: number; readonly after: Op } | null;
  /** it was stopped: somebody watches it until a lead has decided, and no time counts */
  readonly isStopped: boolean;
  /** clocks that go on by themselves meanwhile */
  readonly runsOn: readonly string[];
}

/** Glue out of its tube skins over in this time (guess). */
const GLUE_OPEN_S = 300;
/** Bare adhesive takes up dust all the while; after this it is laid anew (guess). */
const TAPE_OPEN_S = 900;
/** A bond that nobody foresees is stiff again after this (guess). */
const STIFF_S = 120;

/**
 * May the repair be left as it lies now? What turns bad and when, and how far it is to the next place where nothing does.
 * @param warm of the bond in hand as foreseen, where one is warm
 */
export function leaving(
  mechanism: Mechanism,
  state: JobState,
  ops: readonly Op[],
  now: number,
  warm: WarmBond | null = null,
): Leaving {
  const heat = heatBad(mechanism, state, ops, now, warm);
  const bad = [...heat, ...badIn(mechanism, state, state.device)].toSorted(soonest);
  if (state.stopped) return { bad, mayLeave: false, next: null, isStopped: true, runsOn: [] };
  const mayLeave = bad.every(({ isSlight }) => isSlight);
  const inHeat = heat.length > 0 ? lastOfHeat(mechanism, state, ops) + 1 : 0;
  return {
    bad,
    mayLeave,
    next: mayLeave ? null : nextSafe(mechanism, state, ops, inHeat),
    isStopped: false,
    runsOn: running(mechanism, state, ops),
  };
}

function soonest(a: TurnsBad, b: TurnsBad): number {
  return Number(a.isSlight) - Number(b.isSlight) || (a.in_s ?? 0) - (b.in_s ?? 0);
}

/** The source, a bond that is warm and not cut through, and vapour. */
function heatBad(
  { map }: Mechanism,
  state: JobState,
  ops: readonly Op[],
  now: number,
  warm: WarmBond | null,
): TurnsBad[] {
  const { opening, device } = state;
  const bad: TurnsBad[] = [];
  if (opening.heating)
    bad.push({ text: 'The source is on: it does not switch itself off', in_s: null, isSlight: false });
  const isPulled = (id: string) =>
    map.joints.some((each) => each.id === id && each.type === 'bond' && tabsOf(each).length > 0);
  const cutting = ops.find(
    (op) => op.kind === 'release' && (opening.cut.get(op.joint!)?.size ?? 0) > 0 && !isPulled(op.joint!),
  );
  const warmed = ops.find((op) => op.kind === 'release' && lastWarmed(opening, op.joint!) !== undefined);
  const joint = (cutting ?? warmed)?.joint;
  const last = joint === undefined ? undefined : lastWarmed(opening, joint);
  if (
    joint !== undefined &&
    last &&
    !opening.heating &&
    !device.released[map.joints.findIndex(({ id }) => id === joint)]
  ) {
    const gone_s = ((now - Date.parse(last.offAt)) / 1000) * last.pace;
    const left_s = leftToCut_s(map, state, joint, warm) ?? (warm?.off?.working_s ?? STIFF_S) - gone_s;
    const name = thingName(map, joint);
    if (left_s > 0) bad.push({ text: `${name} re-sets as it cools`, in_s: Math.round(left_s), isSlight: false });
    else if (cutting)
      bad.push({ text: `${name} is half cut: leave picks in, or it closes again`, in_s: null, isSlight: true });
  }
  if (dropsOf(opening) > 0)
    bad.push({ text: 'Solvent is in the air: nothing is warmed here', in_s: null, isSlight: true });
  return bad;
}

/** What is said beside the edge in hand is said here as well; null where no edge is, or nothing is foreseen. */
function leftToCut_s(map: DeviceMap, state: JobState, id: string, warm: WarmBond | null): number | null {
  const bond = jointById(map, id);
  if (bond?.type !== 'bond' || !warm) return null;
  const cut = cutInHand(map, state, bond, warm);
  return cut && (edgeInHand(state, bond, cut, warm)?.left_s ?? null);
}

/** The last of the operations that work the bond that is warm: until what it holds is up, it closes again. */
function lastOfHeat({ map }: Mechanism, { opening }: JobState, ops: readonly Op[]): number {
  const joints = new Set([opening.heating?.joint, ...opening.warmed.map(({ joint }) => joint)]);
  const cut = ops.findLastIndex((op) => op.kind === 'release' && joints.has(op.joint));
  const held = jointById(map, ops[cut]?.joint)?.holds ?? [];
  const up = ops.findIndex(
    ({ kind, part }, at) => at > cut && (kind === 'open' || kind === 'lift') && held.includes(part!),
  );
  return Math.max(cut, up);
}

/** What turns bad in a device that lies like this, whatever is warm. */
function badIn(
  mechanism: Mechanism,
  { steps, deviations }: Pick<JobState, 'steps' | 'deviations'>,
  device: DeviceState,
): TurnsBad[] {
  const { map } = mechanism;
  const times = (step: string) => steps.get(step) ?? 0;
  const bare = map.joints.flatMap((joint, at): TurnsBad[] => {
    if (joint.type !== 'bond' || !device.released[at]) return [];
    const laid = times(opId('lay', joint.id));
    if (laid === 0) return [];
    const name = thingName(map, joint.id);
    if (joint.renew === 'liquid' || deviations.closings.get(joint.id) === 'glue') {
      return [{ text: `Glue on ${name} skins over`, in_s: GLUE_OPEN_S, isSlight: false }];
    }
    const isBare = times(opId('liner-off', joint.id)) >= laid;
    return isBare
      ? [
          {
            text: `Adhesive of ${name} lies bare: dust, and it grabs what touches it`,
            in_s: TAPE_OPEN_S,
            isSlight: false,
          },
        ]
      : [];
  });
  const isOpen = map.parts.some((part, at) => isOuter(part) && device.status[at] !== 0);
  const isLive = isOpen && !isDead(mechanism, device) && map.battery !== null;
  const cell = map.battery ? map.parts.findIndex(({ id }) => id === map.battery!.part) : -1;
  const standing = map.parts.filter((part, at) => isOuter(part) && device.status[at] === OPEN);
  const lenses = map.parts.filter(
    (part, at) => part.film && device.status[at] !== OFF && times(opId('film', part.id)) === 0,
  );
  return [
    ...bare,
    ...(isLive
      ? [
          {
            text: 'The battery is connected and the board lies open: what falls on it shorts it',
            in_s: null,
            isSlight: false,
          },
        ]
      : []),
    ...(cell >= 0 && device.status[cell] === OFF
      ? [
          {
            text: 'A bare cell lies out: away from metal and warmth, where nobody sets anything on it',
            in_s: null,
            isSlight: true,
          },
        ]
      : []),
    ...standing.map((part) => ({
      text: `${partName(map, part.id)} stands on its flexes: a knock tears them`,
      in_s: null,
      isSlight: true,
    })),
    ...(isOpen && lenses.length > 0
      ? [
          {
            text: `${lenses.map(({ id }) => partName(map, id)).join(', ')} bare: dust settles`,
            in_s: null,
            isSlight: true,
          },
        ]
      : []),
  ];
}

/** The first place ahead at which nothing turns bad that counts. */
function nextSafe(mechanism: Mechanism, state: JobState, ops: readonly Op[], from: number): Leaving['next'] {
  let { device } = state;
  const steps = new Map(state.steps);
  let seconds = 0;
  for (const [at, op] of ops.entries()) {
    seconds += op.seconds + (op.wait_s ?? 0);
    if (op.kind === 'procedure') steps.set(op.id, (steps.get(op.id) ?? 0) + 1);
    else {
      const { kind, joint, part, onto, staysOpen } = op;
      device = applied(mechanism, device, numberedOp(mechanism, { kind, joint, part, onto, staysOpen }));
    }
    if (at + 1 < from) continue;
    const isSafe = badIn(mechanism, { steps, deviations: state.deviations }, device).every(({ isSlight }) => isSlight);
    if (isSafe) return { steps: at + 1, seconds: Math.round(seconds), after: op };
  }
  return null;
}

/** *Glue of Back glass cures*: what needs nobody. */
function running({ map }: Mechanism, { timers }: JobState, ops: readonly Op[]): string[] {
  return timers.flatMap(({ step }) => {
    const op = ops.find(({ id }) => id === step);
    return op && RUNS_ALONE.has(op.name ?? '')
      ? [`${WORDS[op.name!] ?? op.name} goes on: ${thingName(map, op.joint ?? op.part ?? '')}`]
      : [];
  });
}

const RUNS_ALONE: ReadonlySet<string> = new Set(['press', 'cure', 'dry', 'soak']);
const WORDS: Readonly<Record<string, string>> = { press: 'Pressing', cure: 'Curing', dry: 'Drying', soak: 'Soaking' };
