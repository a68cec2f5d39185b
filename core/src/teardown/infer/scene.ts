import { type Face, isSelfParting, isTether, type Joint, type Point } from '../../model/device-map/index.ts';
import {
  carried,
  type DeviceState,
  groupOfJoint,
  type Mechanism,
  mechanismOf,
  SEATED,
} from '../../planner/holds/index.ts';
import { type SeenPart, type Teardown, type Thing, thingKey } from '../record/index.ts';
import { draftedMap, type Guessed, releasedJoints } from './drafted-map.ts';
import { coversThem } from './outlines.ts';
import { type PlayedLines, playedLines } from './played.ts';

/** So much of the device has to lie under a part for it to lie over what has no place. */
const MOST_OF_IT = 0.6;

/** One teardown as it can be asked about: what was where, what covers what, what was seen when. */
export class Scene {
  readonly told: Teardown;
  readonly mechanism: Mechanism;
  readonly played: PlayedLines;
  readonly #parts: ReadonlyMap<string, SeenPart>;
  readonly #unplaced = new Set<string>();
  readonly #points = new Map<string, readonly Point[]>();
  readonly #firstSeen = new Map<string, number>();
  readonly #photos: Teardown['photos'];
  readonly #faceSeen = new Map<string, Face | undefined>();

  /** @param hosts of joints that were told without one */
  constructor(told: Teardown, hosts: Guessed['hosts']) {
    this.told = told;
    this.mechanism = mechanismOf(draftedMap(told, { hosts, under: new Map() }));
    this.played = playedLines(this.mechanism, told.record);
    this.#parts = new Map(told.parts.map((part) => [part.id, part]));
    for (const [id, { points, at, unplaced }] of releasedJoints(told)) {
      if (unplaced) this.#unplaced.add(id);
      this.#points.set(thingKey({ joint: id }), points && points.length > 0 ? points : at ? [at] : []);
    }
    this.#photos = told.photos.toSorted((a, b) => a.after - b.after);
    const byId = new Map(told.photos.map((photo) => [photo.id, photo]));
    for (const { photo, ...thing } of told.seen) {
      const on = byId.get(photo);
      if (!on) continue;
      this.#firstSeen.set(thingKey(thing), on.after);
      this.#faceSeen.set(thingKey(thing), on.face);
    }
  }

  part(id: string): SeenPart {
    return this.#parts.get(id)!;
  }

  joint(id: string): Joint {
    return this.mechanism.map.joints[this.mechanism.joint.get(id)!]!;
  }

  /** Is it on the map at all? */
  has({ joint, part }: Thing): boolean {
    return joint === undefined ? this.mechanism.part.has(part) : this.mechanism.joint.has(joint);
  }

  faceOf({ joint, part }: Thing): Face {
    return joint === undefined ? this.part(part).face : this.joint(joint).face;
  }

  /** Of a joint the deepest of what it ties. */
  layerOf({ joint, part }: Thing): number {
    if (joint === undefined) return this.part(part).layer;
    const { holds, to } = this.joint(joint);
    return Math.max(...[...holds, to].map((id) => this.part(id).layer));
  }

  pointsOf(thing: Thing): readonly Point[] {
    return thing.joint === undefined ? [] : (this.#points.get(thingKey(thing)) ?? []);
  }

  /** The box of a part, or of what a joint holds first. */
  boxOf({ joint, part }: Thing): SeenPart['box'] {
    return this.part(joint === undefined ? part : this.joint(joint).holds[0]!).box;
  }

  /** Nobody said where it lies. */
  isUnplaced(thing: Thing): boolean {
    if (this.pointsOf(thing).length > 0) return false;
    if (thing.joint !== undefined && this.#unplaced.has(thing.joint)) return true;
    return this.part(thing.joint === undefined ? thing.part : this.joint(thing.joint).holds[0]!).unplaced === true;
  }

  /** What has no place is covered by what reaches over most of the device, and covers nothing. */
  covers(part: string, thing: Thing): boolean {
    const over = this.part(part);
    if (over.unplaced) return false;
    if (!this.isUnplaced(thing)) return coversThem(over, this.pointsOf(thing), this.boxOf(thing));
    const { width, height } = this.told.device.outline;
    return over.box.w * over.box.h > MOST_OF_IT * width * height;
  }

  /** After how many lines the first photograph was taken on which it can be seen. */
  firstSeen(thing: Thing): number | undefined {
    return this.#firstSeen.get(thingKey(thing));
  }

  /** After how many lines the photograph before that one was taken, of the same face where each shows one. */
  photoBefore(thing: Thing): number | undefined {
    const seen = this.firstSeen(thing);
    const face = this.#faceSeen.get(thingKey(thing));
    if (seen === undefined) return undefined;
    return this.#photos.findLast(
      (each) => each.after < seen && (face === undefined || each.face === undefined || each.face === face),
    )?.after;
  }

  /** With whom it lies. */
  groupOf({ joint, part }: Thing, state: DeviceState): number {
    return joint === undefined
      ? state.group[this.mechanism.part.get(part)!]!
      : groupOfJoint(this.mechanism, state, this.mechanism.joint.get(joint)!);
  }

  statusOf(part: string, state: DeviceState): number {
    return state.status[this.mechanism.part.get(part)!]!;
  }

  /** The parts that leave with a part, itself among them. */
  along(part: string, state: DeviceState): ReadonlySet<string> {
    const { mechanism } = this;
    return new Set(
      [...carried(mechanism, state, mechanism.part.get(part)!)].map((each) => mechanism.map.parts[each]!.id),
    );
  }

  /** The parts that were opened or lifted in these lines. */
  movedIn(from: number, to: number): ReadonlySet<string> {
    const moved = this.played.steps
      .slice(from, to)
      .flatMap(({ op, thing }) => (op && thing.part !== undefined ? [thing.part] : []));
    return new Set(moved);
  }

  /** Was it seen while a part was not yet opened or lifted? */
  wasSeenWhileStood(thing: Thing, part: string): boolean {
    const seen = this.firstSeen(thing);
    return seen !== undefined && seen <= (this.played.momentOf(thingKey({ part })) ?? Infinity);
  }

  /** Does a connector, solder joint or hinge tie a part, or what it carries, to anything else? */
  isTied(part: string): boolean {
    const at = this.played.momentOf(thingKey({ part }));
    const along = this.along(part, this.played.after(at ?? 0));
    return this.mechanism.map.joints.some((joint) => {
      if (!isTether(joint) || isSelfParting(joint)) return false;
      const ends = [...joint.holds, joint.to];
      return ends.some((id) => along.has(id)) && ends.some((id) => !along.has(id));
    });
  }

  /** Is it not opened or lifted in this state? */
  stands(part: string, state: DeviceState): boolean {
    return this.statusOf(part, state) === SEATED;
  }

  /** The joints of a part, and those that tie what it carries to the rest. */
  ownJoints(part: string, state: DeviceState): ReadonlySet<string> {
    const along = this.along(part, state);
    const own = this.mechanism.map.joints.filter(({ holds, to }) => {
      const ends = [...holds, to];
      if (ends.includes(part)) return true;
      return ends.some((id) => along.has(id)) && ends.some((id) => !along.has(id));
    });
    return new Set(own.map(({ id }) => id));
  }
}
