/** A figure that is not known exactly: a guess has a reach, and so has a fit. */
export interface Reach {
  readonly low: number;
  readonly likely: number;
  readonly high: number;
}

/** A heat source of a bench. */
interface Source {
  /** as a tool of a plan */
  readonly name: string;
  /** on a switch */
  readonly label: string;
  /** how it gives its heat: through what lies against the face, as air, or as long as what it holds lasts */
  readonly gives: 'contact' | 'air' | 'stored';
  /** what it is usually set to (common practice) */
  readonly temp_C: number;
  /** between these it may be set: hotter is no source for an adhesive, and a ruin (guesses) */
  readonly least_C: number;
  readonly most_C: number;
  /** W/m²K to a face, a guess: wide enough for a film or a case between, a nozzle nearer or farther, a cloth or none */
  readonly transfer: Reach;
  /** what it holds for each degree, J/m²K, where that runs out (guess) */
  readonly capacity_J_m2K?: number;
  /** how long it takes where nothing can be foreseen (common practice) */
  readonly usual_s: number;
}

/** Every heat source that there is: schema, schools, switches, foresight and rules are made from this table. */
const SOURCES = {
  plate: {
    name: 'warming plate',
    label: 'plate',
    gives: 'contact',
    temp_C: 70,
    least_C: 30,
    most_C: 120,
    transfer: { low: 200, likely: 350, high: 600 },
    usual_s: 300,
  },
  pad: {
    name: 'heat pad',
    label: 'pad',
    gives: 'contact',
    temp_C: 60,
    least_C: 30,
    most_C: 120,
    transfer: { low: 200, likely: 320, high: 500 },
    usual_s: 360,
  },
  air: {
    name: 'hot air',
    label: 'hot air',
    gives: 'air',
    temp_C: 80,
    least_C: 30,
    most_C: 450,
    transfer: { low: 90, likely: 130, high: 190 },
    usual_s: 240,
  },
  pack: {
    name: 'warm pack',
    label: 'pack',
    gives: 'stored',
    temp_C: 80,
    least_C: 30,
    most_C: 110,
    transfer: { low: 250, likely: 400, high: 700 },
    capacity_J_m2K: 45_000,
    usual_s: 90,
  },
} as const satisfies Readonly<Record<string, Source>>;

/** A source that warms. */
export type WarmSource = keyof typeof SOURCES;
/** A source, or none at all. */
export type SourceKind = WarmSource | 'none';

export const WARM_SOURCES = Object.keys(SOURCES) as readonly WarmSource[];
export const SOURCE_KINDS: readonly SourceKind[] = [...WARM_SOURCES, 'none'];

export function isWarmSource(kind: string | null | undefined): kind is WarmSource {
  return kind !== null && kind !== undefined && Object.hasOwn(SOURCES, kind);
}

export function sourceNamed(kind: WarmSource): Source {
  return SOURCES[kind];
}
