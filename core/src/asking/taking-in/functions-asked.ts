import type { EventData } from '../../job/events/index.ts';
import type { JobState } from '../../job/state/index.ts';
import type { DeviceMap, DeviceFunction } from '../../model/device-map/index.ts';
import { plural } from '../../planner/words/index.ts';
import { type Gives, NOTHING_ASKED, type Question, type Turn, withKeys } from '../question/index.ts';

type Result = EventData['test']['result'];

const RESULTS: Readonly<Record<Result, string>> = { works: 'works', fails: 'fails', 'not-tried': 'not tried' };

/** Every function of the device, tried one after the other as it comes in; one that was answered can be answered anew. */
export function functionsAsked(map: DeviceMap, state: JobState): Turn {
  const results = new Map(
    state.tests.flatMap((each) => (each.stage === 'intake' ? [[each.function, each.result] as const] : [])),
  );
  const left = map.functions.filter(({ id }) => !results.has(id));
  const fails = [...results.values()].filter((each) => each === 'fails').length;
  const faults = fails > 0 ? `, ${plural(fails, 'old fault')}` : '';
  const [next] = left;
  const list = map.functions.map((each) => ({
    id: each.id,
    text: each.name,
    more: RESULTS[results.get(each.id)!] ?? '',
    at: null,
    isDone: results.has(each.id),
    gives: { kind: 'then', question: { ...askedOf(each, []), title: `${each.name}, again` } } as const,
  }));
  return {
    name: 'Functions tried',
    said: `${results.size} of ${map.functions.length}${faults}`,
    isDone: next === undefined || state.wet !== null,
    question: next
      ? { ...askedOf(next, left), list }
      : { ...NOTHING_ASKED, id: 'functions', title: 'Everything was tried', detail: faults.slice(2), list },
  };
}

/** @param left all that is not tried yet, this one first; empty where one is answered anew */
function askedOf({ id, name, how }: DeviceFunction, left: readonly DeviceFunction[]): Question {
  const tried = (result: Result, of = [id]): Gives => ({
    kind: 'say',
    events: of.map((each) => ({ type: 'test', data: { function: each, result, stage: 'intake' } })),
  });
  const all = left.map((each) => each.id);
  return {
    ...NOTHING_ASKED,
    id: `function:${id}`,
    title: name,
    detail: how,
    answers: withKeys([
      { id: 'works', label: 'Works', weight: 'main', gives: tried('works') },
      { id: 'fails', label: 'Fails', weight: 'warning', gives: tried('fails') },
      { id: 'not-tried', label: 'Not tried', weight: 'plain', gives: tried('not-tried') },
      ...(all.length > 1
        ? ([
            { id: 'dead', key: '4', label: 'Won’t power on', weight: 'plain', gives: tried('not-tried', all) },
            { id: 'rest-works', key: '5', label: 'The rest works', weight: 'plain', gives: tried('works', all) },
          ] as const)
        : []),
    ]),
  };
}
