import { type Problem, wrong } from '../../model/refusal/index.ts';
import type { HeatSetting, Material } from '../../physics/heat/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import { SHOP_EVENT_DATA, type ShopEvent, type ShopEventData, type StockItem } from './shop-events.ts';
import { DEFAULT_LIMITS, type Limits } from '../../model/limits/index.ts';
import { isSameName } from '../../model/names/index.ts';
import { hasLead, personProblem, type Role, roleOf } from './people.ts';

/** What was used at a job: by the events of that job, never booked a second time. */
export interface Used {
  readonly key: string;
  readonly quantity: number;
  /** ISO 8601 */
  readonly at: string;
}

interface Shelf {
  readonly item: StockItem;
  /** counted, and arrived since */
  readonly quantity: number;
  readonly countedAt: string;
}

/** By whom something was said, and when: ISO 8601. */
export interface Said {
  readonly by: string;
  readonly at: string;
}

/** The workshop, as a fold over its events. */
export interface Shop {
  readonly tools: ReadonlySet<string>;
  /** tools that were here, and were said not to be */
  readonly toolsGone: ReadonlySet<string>;
  readonly shelves: ReadonlyMap<string, Shelf>;
  /** who works here; who is not in it counts as a technician */
  readonly people: ReadonlyMap<string, Role>;
  readonly limits: Limits;
  /** who changed them last; null where they are as they came */
  readonly limitsBy: Said | null;
  readonly schools: Partial<Policy>;
  readonly schoolsBy: Said | null;
  /** IANA name; calendar dates are days there */
  readonly zone: string;
  /** its own figures, by name */
  readonly materials: ReadonlyMap<string, Material>;
  /** heat sources measured here, the newest last */
  readonly sources: readonly MeasuredSource[];
  /** where bonds have dragged under a pick here, the newest last */
  readonly drags: readonly FeltDrag[];
  readonly revision: number;
}

/** A heat source whose transfer readings have taught. */
export interface MeasuredSource {
  readonly setting: HeatSetting;
  readonly residual_C: number;
  readonly map: string;
  readonly joint: string;
  readonly simulated?: boolean;
  /** ISO 8601 */
  readonly at: string;
}

/** Where a bond was felt to drag. */
export type FeltDrag = ShopEventData['drag'] & { /** ISO 8601 */ readonly at: string };

/** So many of the last are asked: an adhesive of another batch cuts otherwise (guess). */
const LAST_DRAGS = 20;

/** Where one bond was felt to drag, °C; by stand-ins only where nothing else was felt. */
export function feltAt(drags: readonly FeltDrag[], map: string, joint: string): number[] {
  const here = drags.filter((each) => each.map === map && each.joint === joint);
  const real = here.filter(({ simulated }) => !simulated);
  return (real.length > 0 ? real : here).slice(-LAST_DRAGS).map(({ temp_C }) => temp_C);
}

export const NEW_SHOP: Shop = {
  tools: new Set(),
  toolsGone: new Set(),
  shelves: new Map(),
  people: new Map(),
  limits: DEFAULT_LIMITS,
  limitsBy: null,
  schools: {},
  schoolsBy: null,
  zone: 'UTC',
  materials: new Map(),
  sources: [],
  drags: [],
  revision: 0,
};

/** `needs`: a lead may say it, by the lead's own name, and with the lead's own secret. */
export type ShopOutcome = { readonly shop: Shop } | { readonly problem: Problem; readonly needs?: 'lead' | 'secret' };

export function foldShop(events: readonly ShopEvent[]): Shop {
  return events.reduce((shop, event) => {
    // what a newer version has written is counted and changes nothing here
    if (!Object.hasOwn(SHOP_EVENT_DATA, event.type)) return { ...shop, revision: shop.revision + 1 };
    const outcome = withTaken(shop, event);
    return 'shop' in outcome ? outcome.shop : { ...shop, revision: shop.revision + 1 };
  }, NEW_SHOP);
}

/** What a new event of the workshop is judged by besides the workshop itself. */
export interface ShopSurroundings {
  /** has a lead shown the secret that nobody else has, or does nobody else work here? */
  isConfirmed(name: string): boolean;
  /** may an instrument be one that only stands in for a real one? Only in a demonstration */
  readonly hasStandIns: boolean;
  /** is it known who says it, since everybody signs in? Then a learner changes neither schools nor limits */
  readonly isSignedIn: boolean;
}

/** Judges and takes a new event. */
export function withShopEvent(shop: Shop, event: ShopEvent, around: ShopSurroundings): ShopOutcome {
  if (!around.hasStandIns && 'simulated' in event.data && event.data.simulated === true) {
    return {
      problem: wrong(
        'simulated',
        'An instrument that only stands in for a real one is for the demonstration only.',
        'Measure it.',
      ),
    };
  }
  if (around.isSignedIn && event.type === 'schools' && roleOf(shop.people, event.by) === 'learner') {
    return { problem: wrong('by', `The schools of the workshop are not for a learner to set; ${event.by} is one.`) };
  }
  if (event.type === 'person') {
    const problem = personProblem(shop.people, event.data, event.by);
    if (problem) return { problem };
  }
  return notTheLead(shop, event, around) ?? withTaken(shop, event);
}

/**
 * What only a lead may say. It judges new events only, because the answer to an accepted one has promised that it
 * stays.
 */
function notTheLead({ people }: Shop, event: ShopEvent, { isConfirmed }: ShopSurroundings): ShopOutcome | null {
  const what = forALead(people, event);
  if (what === null) return null;
  const { by } = event;
  if (!hasLead(people))
    return { problem: wrong('by', `${what}, and nobody leads it yet.`, 'Name one first.'), needs: 'lead' };
  if (roleOf(people, by) !== 'lead')
    return { problem: wrong('by', `${what}; ${by} is none.`, 'A lead says it.'), needs: 'lead' };
  if (!asksSecret(people, event) || isConfirmed(by)) return null;
  return {
    problem: wrong('by', `${what}, and others work here too.`, `${by} confirms it with a secret of their own.`),
    needs: 'secret',
  };
}

function forALead(people: Shop['people'], { type }: ShopEvent): string | null {
  if (type === 'limits') return 'The limits of the workshop are for a lead to set';
  return type === 'person' && hasLead(people) ? 'Who works here is for a lead to say' : null;
}

/** Whoever joins is named by the lead; who leads is confirmed. */
function asksSecret(people: Shop['people'], { type, data }: ShopEvent): boolean {
  return type !== 'person' || data.role === 'lead' || roleOf(people, data.name) === 'lead';
}

function withTaken(shop: Shop, event: ShopEvent): ShopOutcome {
  const outcome = taken(shop, event);
  return 'problem' in outcome ? outcome : { shop: { ...outcome.shop, revision: shop.revision + 1 } };
}

function taken(shop: Shop, event: ShopEvent): ShopOutcome {
  switch (event.type) {
    case 'tool': {
      const { name, owned } = event.data;
      const others = [...shop.tools].filter((each) => each !== name);
      const gone = [...shop.toolsGone].filter((each) => each !== name);
      const toolsGone = new Set(owned ? gone : [...gone, name]);
      return { shop: { ...shop, tools: new Set(owned ? [...others, name] : others), toolsGone } };
    }
    case 'item': {
      const before = shop.shelves.get(event.data.id);
      const shelf = { quantity: 0, countedAt: event.at, ...before, item: event.data };
      return { shop: { ...shop, shelves: new Map(shop.shelves).set(event.data.id, shelf) } };
    }
    case 'counted':
      return changed(shop, event.data.item, (shelf) => ({
        ...shelf,
        quantity: event.data.quantity,
        countedAt: event.at,
      }));
    case 'arrived':
      return changed(shop, event.data.item, (shelf) => ({ ...shelf, quantity: shelf.quantity + event.data.quantity }));
    case 'limits':
      return { shop: { ...shop, limits: { ...shop.limits, ...event.data }, limitsBy: saidIn(event) } };
    case 'schools':
      return { shop: { ...shop, schools: { ...shop.schools, ...event.data }, schoolsBy: saidIn(event) } };
    case 'zone':
      return { shop: { ...shop, zone: event.data.zone } };
    case 'person': {
      const { name, role } = event.data;
      const others = [...shop.people].filter(([each]) => !isSameName(each, name));
      return { shop: { ...shop, people: new Map(role ? [...others, [name, role]] : others) } };
    }
    case 'material':
      return { shop: { ...shop, materials: new Map(shop.materials).set(event.data.id, event.data) } };
    case 'source':
      return { shop: { ...shop, sources: [...shop.sources, { ...event.data, at: event.at }] } };
    case 'drag':
      return { shop: { ...shop, drags: [...shop.drags, { ...event.data, at: event.at }] } };
  }
}

function saidIn({ by, at }: ShopEvent): Said {
  return { by, at };
}

function changed(shop: Shop, item: string, change: (shelf: Shelf) => Shelf): ShopOutcome {
  const shelf = shop.shelves.get(item);
  if (!shelf) return { problem: wrong('item', `There is no item “${item}” on the shelf.`, 'Name one of the shelf.') };
  return { shop: { ...shop, shelves: new Map(shop.shelves).set(item, change(shelf)) } };
}

/** An item, and how much of it is left. */
export interface StockLevel extends StockItem {
  /** below 0 where more was used than was ever counted: count it */
  readonly left: number;
  readonly low: boolean;
}

/** Counted and arrived, less what jobs have used since it was counted. */
export function stockLevels(shop: Shop, used: readonly Used[]): StockLevel[] {
  return [...shop.shelves.values()].map(({ item, quantity, countedAt }) => {
    const gone = used.filter((each) => each.key === item.key && Date.parse(each.at) >= Date.parse(countedAt));
    const left = quantity - gone.reduce((sum, each) => sum + each.quantity, 0);
    return { ...item, left, low: left <= item.lowAt };
  });
}
