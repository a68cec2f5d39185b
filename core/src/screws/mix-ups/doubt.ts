import type { DeviceMap, Fastener } from '../../model/device-map/index.ts';
import type { Limits } from '../../model/limits/index.ts';
import { Refusal, wrong } from '../../model/refusal/index.ts';
import { CALIPER_SD_MM, matchScrews, SURE } from '../screws/index.ts';
import { type Harm, harmOf } from './harm.ts';
import { type Hole, holesOf, kindsIn } from './holes.ts';

/** A screw of which nobody knows where it belongs, as it was measured. */
export interface InDoubt {
  readonly length_mm: number;
  /** how much the measure scatters; a caliper's where it is left out */
  readonly sd_mm?: number;
  readonly drive?: string | null;
}

export interface Doubt {
  /** what it can be, the likeliest first; `fastener` null: it belongs nowhere here */
  readonly kinds: readonly { readonly fastener: string | null; readonly p: number }[];
  /** where it may go, the safest first */
  readonly holes: readonly {
    readonly joint: string;
    readonly point: string;
    /** to be expected, over what it can be */
    readonly risk_min: number;
    /** the worst that it can do there and is likely enough to count; null: none */
    readonly harm: Harm | null;
  }[];
  /** what would tell the likeliest two apart; null where nothing is left to tell */
  readonly tells: string | null;
}

const LONGEST_MM = 200;
/** Less likely than this is not spoken of. */
const LIKELY = 0.02;
/** Heads that differ by less are no help, mm (guess). */
const HEAD_MM = 0.2;

/**
 * Which kinds a screw in doubt can be, where it may go, and what else would tell.
 * @param joints those whose holes are open; all of the map's where they are left out
 * @throws Refusal where the measure is out of range
 */
export function judgedDoubt(
  map: DeviceMap,
  joints: readonly string[] | undefined,
  screw: InDoubt,
  limits: Limits,
): Doubt {
  const sd_mm = screw.sd_mm ?? CALIPER_SD_MM;
  if (!(screw.length_mm > 0 && screw.length_mm <= LONGEST_MM)) {
    throw new Refusal(wrong('length_mm', `The length is more than 0 and at most ${LONGEST_MM} mm.`));
  }
  if (!(sd_mm > 0))
    throw new Refusal(wrong('sd_mm', 'A measure without any scatter does not exist: give one above 0 mm.'));
  const holes = holesOf(map, joints).filter(({ kind }) => !kind.captive);
  const kinds = kindsIn(holes);
  const { probabilities } = matchScrews({
    classes: kinds.map(({ kind, holes: own }) => ({
      id: kind.id,
      drive: kind.drive,
      length: kind.length,
      count: own.length,
    })),
    loose: [{ id: 'screw', drive: screw.drive ?? null, length: screw.length_mm, sd: sd_mm }],
  });
  const chances = Object.entries(probabilities['screw']!)
    .map(([id, p]) => ({ fastener: kinds.some(({ kind }) => kind.id === id) ? id : null, p }))
    .toSorted((a, b) => b.p - a.p);
  const likely = chances.filter(({ p }) => p >= LIKELY);
  const canBe = likely.flatMap(({ fastener, p }) => {
    const kind = map.fasteners.find(({ id }) => id === fastener);
    return kind ? [{ kind, p }] : [];
  });
  return {
    kinds: likely,
    holes: canBe.length === 0 ? [] : holes.map((hole) => inHole(hole, canBe, limits)).toSorted(bySafety),
    tells: tellingMeasure(canBe, screw, sd_mm),
  };
}

function inHole(
  { joint, point, kind: right }: Hole,
  canBe: readonly { readonly kind: Fastener; readonly p: number }[],
  limits: Limits,
): Doubt['holes'][number] {
  const harms = canBe.map(({ kind, p }) => ({ p, harm: harmOf(kind, right, point, limits) }));
  const worst = harms.reduce<Harm | null>(
    (most, { harm }) => (harm && harm.minutes > (most?.minutes ?? 0) ? harm : most),
    null,
  );
  const risk_min = harms.reduce((sum, { p, harm }) => sum + p * (harm?.minutes ?? 0), 0);
  return { joint: joint.id, point: point.id, risk_min, harm: worst };
}

function bySafety(a: Doubt['holes'][number], b: Doubt['holes'][number]): number {
  return a.risk_min - b.risk_min || (`${a.joint}/${a.point}` < `${b.joint}/${b.point}` ? -1 : 1);
}

function tellingMeasure(
  canBe: readonly { readonly kind: Fastener; readonly p: number }[],
  screw: InDoubt,
  sd_mm: number,
): string | null {
  const [first, second] = canBe;
  if (!first || !second || first.p >= SURE) return null;
  const [a, b] = [first.kind, second.kind];
  if (!screw.drive && a.drive !== b.drive) return `Look at its drive: ${a.drive} or ${b.drive}.`;
  if (Math.abs(a.head - b.head) >= HEAD_MM) return `Measure its head: ${a.head} mm or ${b.head} mm.`;
  if (a.thread !== b.thread) return `Try its thread: ${a.thread} or ${b.thread}.`;
  if ((a.colour ?? '') !== (b.colour ?? ''))
    return `Look at its colour: ${a.colour ?? 'plain'} or ${b.colour ?? 'plain'}.`;
  const apart = Math.abs(a.length - b.length);
  if (apart === 0) return 'Nothing tells these two apart: they are the same screw under two names.';
  const often = measuresFor(apart, sd_mm);
  return often > MOST_MEASURES
    ? `Nothing at hand tells these two apart: they differ by ${round(apart)} mm. Ask for a new one.`
    : `Measure its length ${often} times and take the mean: ${a.length} mm or ${b.length} mm.`;
}

const MOST_MEASURES = 20;
/** One-sided 95 % of the normal distribution. */
const Z = 1.645;

/** How often a length is measured until its mean is on the right side of the middle in 95 of 100. */
function measuresFor(apart_mm: number, sd_mm: number): number {
  return Math.max(2, Math.ceil(((2 * Z * sd_mm) / apart_mm) ** 2));
}

function round(mm: number): number {
  return Math.round(mm * 1000) / 1000;
}
