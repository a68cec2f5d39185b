import { type DeviceMap, fastenerAt, type ScrewJoint } from '../../model/device-map/index.ts';

/** One screw of the job: the hole it came from names it, and its kind is what was really found there. */
export interface Screw {
  readonly joint: string;
  readonly point: string;
  readonly fastener: string;
  /** as found, where it is not as the map says */
  readonly length_mm?: number;
  /** as it was measured since it lies loose */
  readonly measured_mm?: number;
  /** sorted out after a spill, and still as likely another */
  readonly isUnsure?: boolean;
}

/**
 * Where every screw is. A screw that was taken out is on the mat until it goes back, is lost, or is known to be one that
 * never goes back; nothing else can happen to it.
 */
export interface Ledger {
  readonly onMat: readonly Screw[];
  readonly lost: readonly Screw[];
  /** put back: from the mat, or a new one in its place */
  readonly back: readonly Screw[];
  readonly fresh: readonly Screw[];
  /** holes that were found without a screw: `joint/point` */
  readonly neverThere: ReadonlySet<string>;
  /** left out on purpose, with a recorded decision */
  readonly leftOut: readonly Screw[];
}

export const EMPTY_LEDGER: Ledger = {
  onMat: [],
  lost: [],
  back: [],
  fresh: [],
  neverThere: new Set(),
  leftOut: [],
};

export interface Counts {
  readonly out: number;
  readonly onMat: number;
  readonly back: number;
  readonly lost: number;
}

export function counts(ledger: Ledger): Counts {
  const { onMat, back, lost, leftOut } = ledger;
  return {
    out: onMat.length + back.length + lost.length + leftOut.length,
    onMat: onMat.length,
    back: back.length,
    lost: lost.length,
  };
}

/** How many of each kind lie on the mat. */
export function onMatByKind(ledger: Ledger): ReadonlyMap<string, number> {
  const kinds = new Map<string, number>();
  for (const screw of ledger.onMat) kinds.set(screw.fastener, (kinds.get(screw.fastener) ?? 0) + 1);
  return kinds;
}

/** The screws of a joint that come out of their part: captive ones only loosen, and some were never there. */
export function looseScrewsOf(map: DeviceMap, joint: ScrewJoint, ledger: Ledger = EMPTY_LEDGER): Screw[] {
  const captive = new Set(map.fasteners.filter((each) => each.captive).map((each) => each.id));
  return joint.points
    .map((point): Screw => ({ joint: joint.id, point: point.id, fastener: fastenerAt(joint, point) }))
    .filter((screw) => !captive.has(screw.fastener) && !ledger.neverThere.has(keyOf(screw)));
}

export function keyOf(screw: { readonly joint: string; readonly point: string }): string {
  return `${screw.joint}/${screw.point}`;
}

/** Takes screws out; those that are out already stay where they are. */
export function takenOut(ledger: Ledger, screws: readonly Screw[]): Ledger {
  const out = new Set([...ledger.onMat, ...ledger.lost].map(keyOf));
  const fresh = screws.filter((screw) => !out.has(keyOf(screw)));
  const keys = new Set(fresh.map(keyOf));
  return {
    ...ledger,
    onMat: [...ledger.onMat, ...fresh],
    back: ledger.back.filter((screw) => !keys.has(keyOf(screw))),
    leftOut: ledger.leftOut.filter((screw) => !keys.has(keyOf(screw))),
  };
}

/** Screws that should go back with a joint and are not on the mat. */
export function missingFor(ledger: Ledger, screws: readonly Screw[]): Screw[] {
  const there = new Set([...ledger.onMat, ...ledger.back, ...ledger.leftOut].map(keyOf));
  return screws.filter((screw) => !there.has(keyOf(screw)));
}

/** Puts screws back: each from the mat, or a new one where `fresh` names its point. */
export function putBack(ledger: Ledger, screws: readonly Screw[], fresh: ReadonlySet<string>): Ledger {
  const keys = new Set(screws.map(keyOf));
  const isNew = (screw: Screw) => fresh.has(screw.point);
  const goes = (screw: Screw) => keys.has(keyOf(screw));
  return {
    ...ledger,
    onMat: ledger.onMat.filter((screw) => !goes(screw)),
    lost: ledger.lost.filter((screw) => !goes(screw) || !isNew(screw)),
    back: [
      ...ledger.back.filter((screw) => !goes(screw)),
      ...screws.filter((screw) => !ledger.leftOut.some((each) => keyOf(each) === keyOf(screw))),
    ],
    fresh: [...ledger.fresh, ...screws.filter(isNew)],
  };
}

export function lose(ledger: Ledger, screw: Screw): Ledger {
  return {
    ...ledger,
    onMat: ledger.onMat.filter((each) => keyOf(each) !== keyOf(screw)),
    lost: [...ledger.lost.filter((each) => keyOf(each) !== keyOf(screw)), screw],
  };
}

export function findAgain(ledger: Ledger, screw: Screw): Ledger {
  return {
    ...ledger,
    lost: ledger.lost.filter((each) => keyOf(each) !== keyOf(screw)),
    leftOut: ledger.leftOut.filter((each) => keyOf(each) !== keyOf(screw)),
    onMat: [...ledger.onMat, screw],
  };
}

/**
 * Found after its joint was closed: where a new one is in its hole it goes to the spares, and nothing waits for it; where
 * the hole is empty it lies on the mat, and the hole stays open until somebody has decided.
 */
export function foundSpare(ledger: Ledger, screw: Screw): Ledger {
  const lost = ledger.lost.filter((each) => keyOf(each) !== keyOf(screw));
  const isFilled = ledger.back.some((each) => keyOf(each) === keyOf(screw));
  return isFilled ? { ...ledger, lost } : findAgain(ledger, screw);
}

/** A decision to go on without what is lost. */
export function leaveOut(ledger: Ledger): Ledger {
  return { ...ledger, lost: [], leftOut: [...ledger.leftOut, ...ledger.lost] };
}
