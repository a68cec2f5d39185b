import type { DeviceMap, Face, Fastener, HingeJoint, Joint, Part, Point } from '../../model/device-map/index.ts';

/** A device that is taken apart without a map, as it was told: shapes of docs/map-from-teardown.md. */

/** A part as it was seen: how deep is told by layers, 0 the outermost on its face. */
export type SeenPart = Omit<Part, 'z' | 'under'> & {
  readonly layer: number;
  /** nobody said where it lies: its box only stands for it */
  readonly unplaced?: boolean;
};

/** What something may lie under: a part until it is open or off, or a joint. */
export type Entry =
  | { readonly joint: string; readonly part?: undefined }
  | { readonly part: string; readonly until: 'open' | 'off'; readonly joint?: undefined };

/** What held something, as far as it is known; until when may be missing. */
export type HeldBy = { readonly part: string; readonly until?: 'open' | 'off' } | { readonly joint: string };

/** A joint or a part. */
export type Thing =
  { readonly joint: string; readonly part?: undefined } | { readonly part: string; readonly joint?: undefined };

/** A joint as it was released: `to` may be missing, places may have no ids, holes no depth. */
export interface ReleasedJoint {
  readonly type?: Joint['type'];
  readonly holds?: readonly string[];
  readonly to?: string;
  readonly face?: Joint['face'];
  readonly points?: readonly (Point & { readonly id?: string; readonly fastener?: string })[];
  readonly at?: Point;
  readonly fastener?: string;
  /** how many, where nobody said where they are */
  readonly count?: number;
  /** nobody said where it is, and what it holds does not tell it */
  readonly unplaced?: boolean;
}

/** One line of what was done. `on`: the part on the mat on which it was done. */
export type Line =
  | ({ readonly kind: 'release'; readonly joint: string; readonly on?: string } & ReleasedJoint)
  | { readonly kind: 'open' | 'lift'; readonly part: string; readonly on?: string }
  | ({ readonly kind: 'refused'; readonly by?: HeldBy; readonly on?: string } & Thing);

/** What somebody pressed when asked what held it. */
export type Answered = { readonly id?: string; readonly ask?: 'held' } & Thing & {
    readonly options: readonly Entry[];
    readonly by: readonly Entry[];
  };

export interface Teardown {
  readonly device: Omit<DeviceMap, 'format' | 'version' | 'parts' | 'joints' | 'fasteners' | 'functions'> & {
    readonly functions?: DeviceMap['functions'];
  };
  readonly fasteners: readonly Fastener[];
  readonly hinges: readonly HingeJoint[];
  readonly parts: readonly SeenPart[];
  readonly record: readonly Line[];
  /** `after` counts lines of the record, refusals included; without a face a photograph is of both */
  readonly photos: readonly { readonly id: string; readonly after: number; readonly face?: Face }[];
  /** the first photograph on which a thing can be seen */
  readonly seen: readonly ({ readonly photo: string } & Thing)[];
  readonly answers: readonly Answered[];
  /** later ones, each from the whole device */
  readonly repairs: readonly (readonly Line[])[];
}

/** What an answer, a question or a line is about. */
export function thingOf({
  joint,
  part,
}: {
  readonly joint?: string | undefined;
  readonly part?: string | undefined;
}): Thing {
  return joint === undefined ? { part: part! } : { joint };
}

/** A thing as a key: *joint lid-screws*, *part lid*. */
export function thingKey({ joint, part }: Thing): string {
  return joint === undefined ? `part ${part}` : `joint ${joint}`;
}

/** An entry as a key: *joint lid-screws*, *part lid off*. */
export function entryKey(entry: Entry): string {
  return entry.joint === undefined ? `part ${entry.part} ${entry.until}` : `joint ${entry.joint}`;
}
