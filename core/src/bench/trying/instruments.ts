import type { DeviceMap, Part, PartKind, Point } from '../../model/device-map/index.ts';

/** What shows whether a function works, made for this very device. */
export type Instrument =
  | { readonly kind: 'colour-fields'; readonly part: string }
  | { readonly kind: 'touch-grid'; readonly part: string; readonly columns: number; readonly rows: number }
  | { readonly kind: 'tone'; readonly part: string; readonly at: Point; readonly hertz: readonly number[] }
  | { readonly kind: 'buttons'; readonly buttons: readonly { readonly part: string; readonly at: Point }[] }
  | { readonly kind: 'camera'; readonly part: string; readonly side: 'front' | 'back' }
  | { readonly kind: 'microphone'; readonly part: string; readonly at: Point }
  | { readonly kind: 'vibration'; readonly part: string };

/** A fingertip covers about so much: a field of the touch grid (guess). */
const FINGER_MM = 9;

/** Tones of a small speaker that buzz, rattle or vanish where it or its mesh is at fault, in hertz (common practice). */
const TONES_HZ = [300, 600, 1200, 2400, 4800] as const;

/** What covers a part is no part of what it does. */
const KINDS: readonly PartKind[] = ['display', 'camera', 'earpiece', 'speaker', 'microphone', 'vibrator', 'button'];

/**
 * The instrument for a function, by the kinds of the parts that serve it; null where it is tried as the map says and nothing is to
 * be shown. A display serves picture and touch: which of them, the function's own words tell.
 */
export function instrumentFor(map: DeviceMap, id: string): Instrument | null {
  const tried = map.functions.find((each) => each.id === id);
  if (!tried) return null;
  const serving = servingParts(map, id);
  const kind = KINDS.find((each) => serving.some((part) => part.kind === each));
  const parts = serving.filter((part) => part.kind === kind);
  const [part] = parts;
  if (!part) return null;
  switch (kind) {
    case 'display':
      return onDisplay(part, `${tried.id} ${tried.name} ${tried.how}`);
    case 'camera':
      return { kind: 'camera', part: part.id, side: part.face === 'front' ? 'front' : 'back' };
    case 'earpiece':
    case 'speaker':
      return { kind: 'tone', part: part.id, at: middleOf(part), hertz: TONES_HZ };
    case 'microphone':
      return { kind: 'microphone', part: part.id, at: middleOf(part) };
    case 'vibrator':
      return { kind: 'vibration', part: part.id };
    case 'button':
      return { kind: 'buttons', buttons: parts.map((each) => ({ part: each.id, at: middleOf(each) })) };
    default:
      return null;
  }
}

function servingParts({ parts, joints }: DeviceMap, id: string): Part[] {
  const held = new Set(
    joints.flatMap((joint) => ('functions' in joint && joint.functions?.includes(id) ? joint.holds : [])),
  );
  return parts.filter((part) => part.functions?.includes(id) || held.has(part.id));
}

function onDisplay({ id, box }: Part, words: string): Instrument | null {
  if (/touch|draw|swipe|finger/i.test(words)) {
    const fields = (mm: number) => Math.max(2, Math.round(mm / FINGER_MM));
    return { kind: 'touch-grid', part: id, columns: fields(box.w), rows: fields(box.h) };
  }
  return /picture|display|screen|line|dark|light/i.test(words) ? { kind: 'colour-fields', part: id } : null;
}

function middleOf({ box }: Part): Point {
  return { x: box.x + box.w / 2, y: box.y + box.h / 2 };
}

/** The fields in which a picture is looked at, and what each shows (common practice). */
export const COLOUR_FIELDS: readonly { readonly name: string; readonly colour: string; readonly shows: string }[] = [
  { name: 'white', colour: '#ffffff', shows: 'dark spots, pressure marks, a yellow rim' },
  { name: 'black', colour: '#000000', shows: 'light that leaks in at an edge, stuck points' },
  { name: 'red', colour: '#ff0000', shows: 'lines' },
  { name: 'green', colour: '#00ff00', shows: 'lines' },
  { name: 'blue', colour: '#0000ff', shows: 'lines' },
  { name: 'grey', colour: '#808080', shows: 'an uneven backlight, burnt-in shapes' },
];
