import type { DeviceMap } from '../../model/device-map/index.ts';
import { type Thing, thingKey } from './teardown.ts';
import type { Told, ToldJoint, ToldPart, ToldScrew, TeardownEventData } from './told-events.ts';

/** Something that came off, or would not. */
export type Step =
  | { readonly event: string; readonly kind: 'release'; readonly joint: string; readonly on?: string }
  | { readonly event: string; readonly kind: 'open' | 'lift'; readonly part: string; readonly on?: string }
  | ({
      readonly event: string;
      readonly kind: 'refused';
      readonly by?: TeardownEventData['stuck']['by'];
      readonly on?: string;
    } & Thing);

/** A photograph of the device as it lay, after so many steps. */
export interface Layer {
  readonly photo: string;
  readonly face: 'front' | 'back';
  readonly corners?: TeardownEventData['layer']['corners'];
  /** how many steps were told before it */
  readonly after: number;
}

/** Everything that was told of a device so far, what was told of a thing more than once taken together. */
export interface ToldSoFar {
  readonly parts: ReadonlyMap<string, ToldPart>;
  readonly joints: ReadonlyMap<string, ToldJoint>;
  readonly screws: ReadonlyMap<string, ToldScrew>;
  /** in the order of the hand: what was told late stands where it belongs */
  readonly steps: readonly Step[];
  readonly layers: readonly Layer[];
  readonly firstSeen: readonly ({ readonly photo: string } & Thing)[];
  readonly answers: readonly TeardownEventData['what-held'][];
  readonly outline: DeviceMap['outline'];
  /** it is being taken apart; afterwards it is put together by the plan */
  readonly isOn: boolean;
  readonly isBegun: boolean;
}

/** Parts and joints that a bare map begins with are known as if they had been told. */
export function toldSoFar(base: DeviceMap, told: readonly Told[]): ToldSoFar {
  const parts = new Map<string, ToldPart>(
    base.parts.map((part) => [part.id, { id: part.id, kind: part.kind, name: part.name, face: part.face }]),
  );
  const joints = new Map<string, ToldJoint>();
  const screws = new Map<string, ToldScrew>();
  const steps: Step[] = [];
  const layers: { layer: Omit<Layer, 'after'>; last: string | null }[] = [];
  const firstSeen: ({ readonly photo: string } & Thing)[] = [];
  const answers = new Map<string, TeardownEventData['what-held']>();
  let { outline } = base;
  let isOn = false;
  let isBegun = false;
  const describe = ({
    parts: some = [],
    joints: ties = [],
    screws: kinds = [],
  }: Omit<TeardownEventData['described'], 'outline'>) => {
    for (const each of some) parts.set(each.id, { ...parts.get(each.id), ...each });
    for (const each of ties) joints.set(each.id, { ...joints.get(each.id), ...each });
    for (const each of kinds) screws.set(each.id, { ...screws.get(each.id), ...each });
  };
  const insert = (step: Step, before: string | undefined) => {
    const at = before === undefined ? -1 : steps.findIndex(({ event }) => event === before);
    steps.splice(at < 0 ? steps.length : at, 0, step);
  };
  for (const { id, type, data } of told) {
    switch (type) {
      case 'take-apart':
        isOn = true;
        isBegun = true;
        break;
      case 'put-together':
        isOn = false;
        break;
      case 'came-off': {
        describe(data);
        const on = data.on === undefined ? {} : { on: data.on };
        if (data.joint !== undefined) insert({ event: id, kind: 'release', joint: data.joint, ...on }, data.before);
        else insert({ event: id, kind: data.to === 'open' ? 'open' : 'lift', part: data.part, ...on }, data.before);
        break;
      }
      case 'stuck': {
        const { before, by, on, ...thing } = data;
        insert(
          { event: id, kind: 'refused', ...thing, ...(by ? { by } : {}), ...(on === undefined ? {} : { on }) },
          before,
        );
        break;
      }
      case 'described':
        describe(data);
        outline = data.outline ?? outline;
        break;
      case 'what-held':
        answers.set(thingKey(data), data);
        break;
      case 'layer':
        // its corners were put right: it was taken when it was taken
        if (layers.some(({ layer }) => layer.photo === data.photo))
          layers.forEach((each) => each.layer.photo === data.photo && (each.layer = data));
        else layers.push({ layer: data, last: steps.at(-1)?.event ?? null });
        break;
      case 'first-seen':
        firstSeen.push(data);
        break;
    }
  }
  return {
    parts,
    joints,
    screws,
    steps,
    layers: layers.map(({ layer, last }) => ({
      ...layer,
      after: last === null ? 0 : steps.findIndex(({ event }) => event === last) + 1,
    })),
    firstSeen,
    answers: [...answers.values()],
    outline,
    isOn,
    isBegun,
  };
}

/** What a joint holds: what was said, else what came off next where it was undone; null while nothing has. */
export function heldBy(
  { steps, joints }: Pick<ToldSoFar, 'steps' | 'joints'>,
  joint: string,
): readonly string[] | null {
  const { holds } = joints.get(joint) ?? {};
  if (holds) return holds;
  const at = steps.findIndex((step) => step.kind === 'release' && step.joint === joint);
  const next = steps
    .slice(at + 1)
    .find((step) => (step.kind === 'lift' || step.kind === 'open') && step.on === steps[at]?.on);
  return next?.kind === 'lift' || next?.kind === 'open' ? [next.part] : null;
}

/** Joints that are undone and of which nobody knows yet what they held. */
export function holdingNothing(so: ToldSoFar): readonly string[] {
  return so.steps.flatMap((step) => (step.kind === 'release' && heldBy(so, step.joint) === null ? [step.joint] : []));
}

/** Parts that came off. */
export function partsOff({ steps }: Pick<ToldSoFar, 'steps'>): ReadonlySet<string> {
  return new Set(steps.flatMap((step) => (step.kind === 'lift' ? [step.part] : [])));
}
