import type { DeviceMap } from '../../model/device-map/index.ts';
import { opId } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { curing, type JobState, partsNewIn, saidOfWater } from '../../job/state/index.ts';
import { counts } from '../../screws/screws/index.ts';
import { inWords } from '../../planner/search/index.ts';
import { TORQUE_N_CM } from '../../physics/torque/index.ts';
import {
  batteryWords,
  capital,
  heldName,
  lostFunctions,
  partName,
  plural,
  pointName,
  rimWords,
} from '../../planner/words/index.ts';

/** What the owner is handed: what was done and found, in words, with nothing left to look up. */
export interface Report {
  readonly title: string;
  readonly device: string;
  /** *serial BF-GW-0033*, *orange* */
  readonly facts: readonly string[];
  readonly done: readonly string[];
  readonly parts: readonly { readonly name: string; readonly from: string; readonly numbers: string }[];
  readonly tests: readonly {
    readonly name: string;
    /** as it came in, and as it is handed over; empty where nobody tried */
    readonly before: string;
    readonly after: string;
    readonly note: string;
  }[];
  readonly screws: string;
  readonly torques: readonly string[];
  /** water, losses, warnings, what was decided and what stays open */
  readonly toKnow: readonly string[];
  readonly troubles: readonly string[];
  readonly people: readonly string[];
  readonly takenIn: string;
  readonly finished: string | null;
  /** to whom it went, and when: ISO 8601 */
  readonly handedOver: { readonly to: string; readonly at: string } | null;
  /** photographs in their order, by the hash of what is shown */
  readonly photos: readonly { readonly hash: string; readonly text: string }[];
  /** parts that are new, and those that were out */
  readonly isNew: ReadonlySet<string>;
  readonly wasOut: ReadonlySet<string>;
}

const RESULTS = { works: 'works', fails: 'fails', 'not-tried': 'not tried' } as const;
/** More pictures are in the export. */
const MOST_PHOTOS = 4;

/** An acrylic foam tape at room temperature (a data sheet, from memory). */
const CURING =
  'Its adhesive has half of its strength 20 min after it was pressed, and 90 % after a day: until then no water and no bending.';

/** Glue, where the map or the shop gives it a time. */
const GLUED = 'It is glued: until the glue has set no water, no heat and no bending.';

export function reportOf(mechanism: Mechanism, state: JobState): Report {
  const { map } = mechanism;
  const { job } = state;
  const fitted = partsNewIn(mechanism, state);
  return {
    title: job.title,
    device: map.name,
    facts: [
      ...(job.serial ? [`serial ${job.serial}`] : []),
      ...(job.colour ? [job.colour] : []),
      ...(job.owner ? [job.owner] : []),
    ],
    done: state.targets.filter((each) => !isPressedHome(state, each)).map((each) => capital(inWords(mechanism, each))),
    parts: partsOf(map, state, fitted),
    tests: testsOf(map, state),
    screws: screwWords(state),
    torques: torqueWords(map, state),
    toKnow: toKnow(mechanism, state, fitted),
    troubles: state.troubles.map(({ data }) => {
      const at = data.part ? `, ${partName(map, data.part)}` : data.joint ? `, ${heldName(map, data.joint)}` : '';
      return `${capital(data.kind.replaceAll('-', ' '))}${at}${data.text ? `: ${data.text}` : ''}`;
    }),
    people: [...new Set(state.inForce.map(({ by }) => by))],
    takenIn: job.createdAt,
    finished: state.finished,
    handedOver: state.handedOver,
    photos: photosOf(state).map(({ shown, text, part }) => ({
      hash: shown,
      text: text ?? (part ? partName(map, part) : ''),
    })),
    isNew: new Set(fitted),
    wasOut: new Set(state.done.flatMap(({ kind, part }) => (kind === 'lift' ? [part!] : []))),
  };
}

/** A plug that was got at once more on the way is no work that was asked for. */
function isPressedHome({ steps }: JobState, target: JobState['targets'][number]): boolean {
  return 'reach' in target && steps.has(opId('press-home', target.reach));
}

/** Those that were chosen, in their order; else the last that were taken of the device. */
function photosOf({ photos, chosenPhotos }: JobState): JobState['photos'] {
  if (chosenPhotos === null) return photos.filter(({ of }) => of !== 'mat').slice(-MOST_PHOTOS);
  return chosenPhotos.flatMap((hash) => photos.find(({ shown }) => shown === hash) ?? []);
}

function partsOf(map: DeviceMap, { parts }: JobState, fitted: readonly string[]): Report['parts'] {
  return [...new Set(fitted)].map((id) => {
    const own = parts.findLast(({ mapPart, decision }) => mapPart === id && decision?.decision.startsWith('accept'));
    return {
      name: partName(map, id),
      from: own?.source ?? 'source not recorded',
      numbers: own?.numbers.map(({ place, value }) => `${place} ${value}`).join(', ') ?? '',
    };
  });
}

function testsOf(map: DeviceMap, { tests, targets }: JobState): Report['tests'] {
  const lost = lostFunctions(map, targets);
  return map.functions.flatMap(({ id, name }) => {
    const of = (stages: readonly string[]) =>
      tests.findLast((each) => each.function === id && stages.includes(each.stage));
    const before = of(['intake'])?.result;
    // the newest: a device that was opened again was tried again before it was sealed
    const last = of(['before', 'after']);
    const after = last?.result;
    if (before === undefined && after === undefined && !lost.has(id)) return [];
    const note = lost.has(id)
      ? 'lost by this repair, as was told'
      : before === 'fails' && after !== 'works'
        ? 'an old fault'
        : last?.simulated
          ? 'simulated'
          : '';
    return [{ name, before: before ? RESULTS[before] : '', after: after ? RESULTS[after] : '', note }];
  });
}

function screwWords({ ledger }: JobState): string {
  const { out, back, onMat, lost } = counts(ledger);
  if (out === 0) return 'No screw came out.';
  const more = [
    ...(ledger.fresh.length > 0 ? [`${ledger.fresh.length} of them new`] : []),
    ...(ledger.leftOut.length > 0 ? [`${ledger.leftOut.length} left out by decision`] : []),
    onMat > 0 ? `${onMat} still on the mat` : 'none left on the mat',
    ...(lost > 0 ? [`${lost} missing`] : []),
  ];
  return `${plural(out, 'screw')} out, ${back} back in, ${more.join(', ')}.`;
}

const OUTSIDE = { low: 'below its window', high: 'above its window', slips: 'its thread slips' } as const;

function torqueWords(map: DeviceMap, { peaks }: JobState): string[] {
  return [...peaks].flatMap(([key, { peak_Ncm, verdict }]) => {
    if (verdict === 'in') return [];
    const [joint, point] = key.split('/') as [string, string];
    const kgf_cm = (peak_Ncm / TORQUE_N_CM['kgf·cm']).toFixed(2);
    return [`${capital(pointName(map, joint, point))}: ${peak_Ncm} N·cm (${kgf_cm} kgf·cm), ${OUTSIDE[verdict]}`];
  });
}

function toKnow(mechanism: Mechanism, state: JobState, fitted: readonly string[]): string[] {
  const { map } = mechanism;
  const cures = curing(mechanism, state);
  const isTaped = cures.some(({ by }) => by === 'tape');
  const glued = cures.filter(({ by }) => by === 'time');
  const cell = map.battery?.part;
  const isCellOut = cell !== undefined && fitted.includes(cell);
  return [
    ...saidOfWater(mechanism, state),
    ...(isTaped ? [CURING] : []),
    ...(glued.length > 0 ? [GLUED] : []),
    ...[...state.flush].flatMap(([id, fit]) => (fit ? [rimWords(map, id, fit)] : [])),
    ...(state.agreed?.items ?? state.prepared?.told ?? []),
    ...state.decisions.map(({ text }) => `Decided: ${text}`),
    ...state.batteryReads.map((each) => `Battery report, the ${each.of} one: ${batteryWords(each)}.`),
    ...(isCellOut
      ? ['The old battery is kept apart, its contacts covered. Where it goes is a matter of local rules.']
      : []),
  ];
}
