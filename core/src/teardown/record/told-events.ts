import type {
  BondJoint,
  ClipJoint,
  ConnectorJoint,
  DeviceMap,
  Edge,
  Face,
  Part,
  PartKind,
  Point,
} from '../../model/device-map/index.ts';
import type { Entry, HeldBy, Thing } from './teardown.ts';

/** What is told while a device without a map is taken apart. Whatever is not known is left out, and may be told later. */

/** A part, told for the first time or once more: what is told later counts. */
export interface ToldPart {
  readonly id: string;
  readonly kind?: PartKind;
  readonly name?: string;
  readonly face?: Face;
  /** rough, mm; left out as long as nobody said where it lies */
  readonly box?: Part['box'];
  readonly outline?: Part['outline'];
  readonly functions?: readonly string[];
  readonly hazards?: Part['hazards'];
  readonly reuse?: Part['reuse'];
  /** the edge that stays while it is swung open */
  readonly opens?: { readonly edge: Edge };
  /** marks and words on it */
  readonly mark?: string;
}

/** A kind of screw: a letter tells it from the others. */
export interface ToldScrew {
  readonly id: string;
  readonly drive?: string;
  /** mm; left out as long as nobody measured it */
  readonly length?: number;
  readonly head?: number;
  readonly thread?: string;
}

/** How something was held: screws as a batch, without a place; a plug; glue. */
export interface ToldJoint {
  readonly id: string;
  readonly type?: 'screw' | 'connector' | 'bond' | 'clip' | 'solder' | 'hinge';
  readonly style?: ConnectorJoint['style'] | BondJoint['style'];
  /** left out: what comes off next */
  readonly holds?: readonly string[];
  readonly to?: string;
  readonly face?: Face;
  /** how many screws, clips or wires */
  readonly count?: number;
  /** the letter of its screws */
  readonly screw?: string;
  readonly points?: readonly Point[];
  readonly at?: Point;
  readonly isolates?: ConnectorJoint['isolates'];
  readonly functions?: readonly string[];
  /** it was warmed for it */
  readonly heat?: boolean;
  /** it was soaked for it */
  readonly solvent?: BondJoint['solvent'];
  readonly eject?: ClipJoint['eject'];
  /** of a hinge */
  readonly edge?: Edge;
  readonly mark?: string;
}

/** What is told of things, whether they came off or not. */
interface Described {
  readonly parts?: readonly ToldPart[];
  readonly joints?: readonly ToldJoint[];
  readonly screws?: readonly ToldScrew[];
}

/** Where it belongs in the record: directly before what another event told; left out: at its end. */
interface Placed {
  readonly before?: string;
  /** the part on the mat on which it was done */
  readonly on?: string;
}

/** What an event of a teardown says, by its type. */
export interface TeardownEventData {
  /** from here on it is told what comes off */
  readonly 'take-apart': Record<never, never>;
  /** a joint that is undone, or a part that is open or off; what is told of it for the first time comes along */
  readonly 'came-off': Placed &
    Described &
    (
      | { readonly joint: string; readonly part?: undefined; readonly to?: undefined }
      | { readonly part: string; readonly to: 'open' | 'off'; readonly joint?: undefined }
    );
  /** a joint or part that would not move, and what held it, where that is known */
  readonly stuck: Placed & Thing & { readonly by?: HeldBy };
  /** what held something, when it was asked */
  readonly 'what-held': Thing & { readonly options: readonly Entry[]; readonly by: readonly Entry[] };
  /** what was seen of things, once more */
  readonly described: Described & { readonly outline?: DeviceMap['outline'] };
  /** a photograph that was taken shows the device as it lies: which face is up, and where its four corners are */
  readonly layer: {
    /** the event of the photograph */
    readonly photo: string;
    readonly face: 'front' | 'back';
    /** shares of its width and height, from the upper left of the device clockwise */
    readonly corners?: readonly Point[];
  };
  /** this came into sight with that photograph: on the one before it, it was not to be seen */
  readonly 'first-seen': Thing & { readonly photo: string };
  /** nothing more comes off: from here on it is put together by the plan */
  readonly 'put-together': Record<never, never>;
}

export type TeardownEventType = keyof TeardownEventData;

/** One thing that was told; `id` is its event's. */
export type Told = {
  readonly [Type in TeardownEventType]: {
    readonly id: string;
    readonly type: Type;
    readonly data: TeardownEventData[Type];
  };
}[TeardownEventType];
