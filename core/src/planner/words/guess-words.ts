import type { DeviceMap, GuessedEntry, UnderEntry } from '../../model/device-map/index.ts';
import type { Op } from '../drafts/index.ts';
import { partName, thingName } from './thing-names.ts';

/** What made an entry of a map that was inferred, as a technician says it; by the rules of docs/map-from-teardown.md. */
const BECAUSE: Readonly<Record<string, string>> = {
  answer: 'somebody pressed it when asked',
  refused: 'it would not move before',
  sight: 'it came into sight when that was moved',
  outline: 'that is drawn over it',
  'same-part': 'screws come out before glue and clips',
  'last-off': 'that came off last before it',
  'kept-order': 'that came off before it',
};

/** How sure an entry is, and by what; null where the map was written, or says nothing of it. */
export function sureness({ origin }: DeviceMap, thing: string, entry: UnderEntry): string | null {
  const guess = origin?.guesses.find((each) => (each.joint ?? each.part) === thing && isSame(each.entry, entry));
  return guess ? `${guess.certainty}: ${BECAUSE[guess.why] ?? guess.why}` : null;
}

function isSame(a: GuessedEntry['entry'], b: UnderEntry): boolean {
  return 'joint' in b ? a.joint === b.joint : a.part === b.part && a.until === b.until;
}

/** Where a step stands only by a guess, and which; '' where none bears on it. */
export function leansOn(map: DeviceMap, { kind, joint, part }: Pick<Op, 'kind' | 'joint' | 'part'>): string {
  const guesses = (map.origin?.guesses ?? []).filter((each) => each.in && each.certainty === 'likely');
  const isOf = (each: { readonly joint?: string; readonly part?: string }) =>
    joint === undefined ? part !== undefined && each.part === part : each.joint === joint;
  switch (kind) {
    case 'release':
    case 'open':
    case 'lift': {
      const guess = guesses.find(isOf);
      return guess ? `A guess: ${entryName(map, guess.entry)} first.` : '';
    }
    case 'make':
    case 'fit':
    case 'close': {
      const later = guesses.filter(({ entry }) => isOf(entry));
      const guess = later.find(({ why }) => why !== 'kept-order');
      if (guess) return `A guess: before ${nameOf(map, guess)}.`;
      return later.length > 0 ? 'In the reverse of how it came off: nobody knows whether it has to be.' : '';
    }
    default:
      return '';
  }
}

function entryName(map: DeviceMap, { joint, part, until }: GuessedEntry['entry']): string {
  return joint === undefined ? `${partName(map, part ?? '')} ${until}` : thingName(map, joint);
}

function nameOf(map: DeviceMap, { joint, part }: Pick<GuessedEntry, 'joint' | 'part'>): string {
  return joint === undefined ? partName(map, part ?? '') : thingName(map, joint);
}
