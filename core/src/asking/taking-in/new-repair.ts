import type { DeviceMap } from '../../model/device-map/index.ts';
import type { Target } from '../../planner/search/index.ts';
import { capital, partName } from '../../planner/words/index.ts';
import {
  type Gives,
  type Keyless,
  type Line,
  NOTHING_ASKED,
  type Pick,
  type Turns,
  type Turn,
  withKeys,
} from '../question/index.ts';
import { type Ask, ASKS, targetLine, thingsFor } from './job-targets.ts';

/** A repair that does not exist yet. */
export interface NewRepair {
  readonly maps: readonly { readonly id: string; readonly name: string }[];
  readonly map: DeviceMap | null;
  readonly targets: readonly Target[];
  /** what is done with the part that is pressed next */
  readonly ask: Ask;
  /** another part is picked beside those that were */
  readonly isMore: boolean;
  /** what was typed to find a device or a part */
  readonly find: string;
}

const pick = (what: Pick, id: string): Gives => ({ kind: 'pick', pick: what, id });

/** Which device, which part of it, whose: then it is taken in. */
export function askedForNew(repair: NewRepair): Turns {
  return [deviceAsked(repair), ...(repair.map ? [partAsked(repair, repair.map), numberAsked(repair, repair.map)] : [])];
}

/** What is called so, its words in any order; what begins with what was typed comes first. */
function found<Named>(all: readonly Named[], nameOf: (each: Named) => string, find: string): readonly Named[] {
  const typed = find.trim().toLowerCase();
  const name = (each: Named) => nameOf(each).toLowerCase();
  const isBegun = (each: Named) => typed !== '' && name(each).startsWith(typed);
  return all
    .filter((each) => typed.split(/\s+/).every((word) => name(each).includes(word)))
    .toSorted((a, b) => Number(isBegun(b)) - Number(isBegun(a)));
}

function deviceAsked({ maps, map, find }: NewRepair): Turn {
  const shown = found(maps, ({ name }) => name, find);
  return {
    name: 'Device',
    said: map?.name ?? '',
    isDone: map !== null,
    question: {
      ...NOTHING_ASKED,
      id: 'device',
      title: 'Which device?',
      hint: maps.length === 0 ? 'There is no map yet: import one, or take a device apart.' : '',
      field: { label: 'Find a device', kind: 'text', cure: 'Type a part of its name.' },
      list: shown.map(({ id, name }) => line(id, name, id === map?.id, pick('device', id))),
      answers: withKeys([
        ...(map
          ? [{ id: 'this', label: `It is a ${map.name}`, weight: 'main', gives: pick('device', map.id) } as const]
          : []),
        { id: 'unmapped', label: 'It has no map: take it apart', weight: 'plain', gives: pick('unmapped', '') },
      ]),
    },
  };
}

const WHICH: Readonly<Record<Ask, string>> = {
  part: 'Which part is replaced?',
  out: 'Which part comes out and goes back?',
  reach: 'What is to be reached?',
};

function partAsked({ targets, ask, isMore, find }: NewRepair, map: DeviceMap): Turn {
  const asked = targets.map((each) => targetLine(map, each));
  const full = targets.find((each) => 'full' in each);
  const kept = full && 'full' in full ? (full.keep ?? []) : [];
  const things = full
    ? map.parts
        .filter(({ id, base }) => !base && !kept.includes(id))
        .map(({ id }) => ({ id, label: partName(map, id) }))
    : thingsFor(map, ask);
  const other = (next: Ask): Keyless => ({
    id: next,
    label: capital(ASKS[next]),
    weight: 'plain',
    gives: pick('ask', next),
  });
  return {
    name: targets.length > 1 ? 'Parts' : 'Part',
    said: asked.join(', '),
    isDone: targets.length > 0 && !isMore,
    question: {
      ...NOTHING_ASKED,
      id: 'part',
      title: full ? 'All apart, but keep what?' : isMore ? 'Which one more?' : WHICH[ask],
      hint: 'Press it on the drawing, or find it by name.',
      field: { label: 'Find a part', kind: 'text', cure: 'Type a part of its name.' },
      list: found(things, ({ label }) => label, find).map(({ id, label }) => line(id, label, false, pick('part', id))),
      answers: withKeys([
        ...(targets.length > 0
          ? [
              {
                id: 'enough',
                label: full ? 'Nothing else is kept' : 'That is all',
                weight: 'main',
                gives: pick('more', ''),
              } as const,
            ]
          : []),
        ...(full ? [] : (Object.keys(ASKS) as Ask[]).filter((each) => each !== ask).map(other)),
        ...(full ? [] : [{ id: 'full', label: 'All of it apart', weight: 'plain', gives: pick('full', '') } as const]),
      ]),
    },
  };
}

function numberAsked({ targets }: NewRepair, map: DeviceMap): Turn {
  return {
    name: 'Job and owner',
    said: '',
    isDone: false,
    question: {
      ...NOTHING_ASKED,
      id: 'number',
      title: 'Take it in',
      detail: map.name,
      list: targets.map((each, at) => ({
        ...line(String(at), targetLine(map, each), true, pick('drop', String(at))),
        more: 'take away',
      })),
      answers: withKeys([
        {
          id: 'take-in',
          label: 'Take it in',
          weight: 'main',
          gives: pick('take-in', ''),
          ...(targets.length > 0 ? {} : { notNow: 'First the part' }),
        },
        { id: 'more', label: 'One more part', weight: 'plain', gives: pick('more', 'more') },
        {
          id: 'what-it-takes',
          label: 'What it takes',
          weight: 'plain',
          gives: { kind: 'ask', about: 'what-it-takes' },
        },
      ]),
    },
  };
}

function line(id: string, text: string, isDone: boolean, gives: Gives): Line {
  return { id, text, more: '', at: null, isDone, gives };
}
