import { isForSealing } from '../../after/kit/index.ts';
import { heldParts, isDrying, isPrepared, targetsForNow } from '../../job/rules/index.ts';
import { settled } from '../../model/policy/index.ts';
import { partName, plural } from '../../planner/words/index.ts';
import { type BenchItem, benchItems } from '../../workshop/prepare/index.ts';
import { type Gives, type Keyless, NOTHING_ASKED, type Turn, withKeys } from '../question/index.ts';
import { chargeAsked } from './charge-asked.ts';
import { gapsOf } from './gaps-asked.ts';
import { partsAsked } from './parts-asked.ts';
import { ownerAsked } from './owner-asked.ts';
import type { Preparing } from './preparing.ts';

/** What has to be so on the bench for this repair. */
function itemsOf({ mechanism, state, ahead, kit }: Preparing): readonly BenchItem[] {
  const { map } = mechanism;
  const settings = { ...settled(map, state.policy).policy, ...state.limits };
  const isSpent = kit?.supplies.some(
    (each) => !each.advised && !each.enough && each.left !== null && isForSealing(each),
  );
  // a seal that the shelf has not is asked about by its own name
  return benchItems(map, targetsForNow(mechanism, state), settings, ahead.ops).filter(
    ({ id }) => id !== 'seals' || !isSpent,
  );
}

/** The bench as it has to be. Its ticks start empty: pressed one by one, or all of it said together. */
export function benchAsked(preparing: Preparing): Turn {
  const { mechanism, state, draft } = preparing;
  const items = itemsOf(preparing);
  const done = isPrepared(mechanism, state);
  const ticked = items.filter(({ id }) => draft.done.has(id));
  const left = items.filter(({ id }) => !draft.done.has(id) && !draft.without.has(id));
  const held = isDrying(state) ? [] : heldParts(mechanism, state);
  const skipped = state.prepared?.skipped.length ?? 0;
  const names = held.map((id) => partName(mechanism.map, id)).join(', ');
  return {
    name: 'The bench',
    said: done ? `prepared${skipped > 0 ? `, ${skipped} left out with a reason` : ''}` : plural(items.length, 'thing'),
    isDone: done,
    question: {
      ...NOTHING_ASKED,
      id: 'bench',
      title: done ? 'Ready to open' : 'The bench',
      detail: done ? '' : held.length > 0 ? `Not opened for ${names}: the new one is not accepted` : '',
      hint: done ? '' : 'Local rules and your lead decide where they say more.',
      cautions: (mechanism.map.cautions ?? []).map((text) => ({ text, isKnown: false })),
      list: items.map(({ id, title, harm }) => ({
        id,
        text: title,
        more: harm,
        at: null,
        isDone: done || draft.done.has(id),
        gives: done ? null : { kind: 'mark', mark: 'done', items: [id] },
      })),
      field:
        !done && ticked.length > 0 && left.length > 0
          ? {
              label: 'The rest is left out, because',
              kind: 'text',
              cure: 'Say why the rest is left out: it is recorded.',
            }
          : null,
      answers: withKeys(done ? [TO_BENCH] : held.length > 0 ? [] : answersOf(preparing, items, ticked, left)),
    },
  };
}

const TO_BENCH: Keyless = { id: 'bench', label: 'To the bench', weight: 'main', gives: { kind: 'go', to: 'bench' } };

function answersOf(
  preparing: Preparing,
  items: readonly BenchItem[],
  ticked: readonly BenchItem[],
  left: readonly BenchItem[],
): readonly Keyless[] {
  const first = before(preparing);
  const all: Keyless = {
    id: 'all',
    label: 'All of this is done',
    weight: 'main',
    gives: prepared(preparing, items),
    ...(first === null ? {} : { notNow: first }),
  };
  if (ticked.length === 0 || left.length === 0) return [all];
  const rest: Gives = { kind: 'mark', mark: 'without', items: left.map(({ id }) => id) };
  return [all, { id: 'rest', label: 'The rest is left out', weight: 'plain', gives: rest, takes: { name: 'reason' } }];
}

/** What has to be said before the bench; null where all of it is. */
function before(preparing: Preparing): string | null {
  const { draft } = preparing;
  const open = [
    ...partsAsked(preparing),
    ...ownerAsked(preparing),
    ...chargeAsked(preparing),
    ...gapsOf(preparing).flatMap(({ item, title }) =>
      draft.without.has(item) ? [] : [{ name: title, isDone: false }],
    ),
  ].filter(({ isDone }) => !isDone);
  return open.length > 0 ? `First: ${open.map(({ name }) => name).join(', ')}` : null;
}

/** All that was said on the page, recorded together; then the device is opened. */
function prepared(preparing: Preparing, items: readonly BenchItem[]): Gives {
  const { state, draft } = preparing;
  const charge = state.charges.at(-1)?.charge;
  const without = [
    ...gapsOf(preparing).map(({ item }) => item),
    ...items.filter(({ id }) => draft.without.has(id)).map(({ id }) => id),
  ];
  const data = {
    items: items.filter(({ id }) => !draft.without.has(id)).map(({ id }) => id),
    skipped: without.map((item) => ({ item: item.slice(0, 200), reason: draft.without.get(item)! })),
    ...(charge === undefined ? {} : { charge }),
    ...(state.agreed ? { told: state.agreed.items } : {}),
  };
  return { kind: 'say', events: [{ type: 'prepared', data }], then: 'bench' };
}
