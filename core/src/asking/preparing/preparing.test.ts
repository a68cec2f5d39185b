import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { Led } from '../../../test/led.ts';
import { tern5 } from '../../../test/maps.ts';
import { kitFor } from '../../after/kit/index.ts';
import { nextAsked, type Turns } from '../question/index.ts';
import { askedInPreparing } from './asked-in-preparing.ts';
import { type Draft, NO_DRAFT } from './preparing.ts';

const desk = { today: '2026-11-24', window_days: 14 } as const;

/** What is asked before a display is replaced, with these tools at hand. */
function asked(bench: TestBench, draft: Partial<Draft> = {}, tools: readonly string[] | null = null): Turns {
  const { mechanism, state, now } = bench;
  const ahead = new Led(bench).ahead();
  const kit = tools && kitFor(mechanism.map, ahead.plan, new Set(tools), []);
  return askedInPreparing({
    mechanism,
    state,
    ahead,
    kit,
    desk,
    usualSource: 'Harbour Parts, new',
    draft: { ...NO_DRAFT, ...draft },
    now,
  });
}

const turn = (turns: Turns, id: string) => turns.find(({ question }) => question.id === id)!;
const answers = (turns: Turns, id: string) => turn(turns, id).question.answers.map((each) => each.id);

describe('preparing', () => {
  const bench = new TestBench(tern5(), [{ replace: 'display' }]);

  it('asks for the new part before the owner, who hears where it comes from', () => {
    expect(asked(bench).map(({ question }) => question.id)).toEqual(['part:display', 'owner', 'charge', 'bench']);
    expect(nextAsked(asked(bench), null)!.question).toMatchObject({
      title: 'New Display',
      field: { start: 'Harbour Parts, new' },
    });
    expect(nextAsked(asked(bench), 'charge')!.question.title).toBe('Battery charge');
  });

  it('goes on without a part that is not here only with a reason, or closes up without it', () => {
    const passed = new Set(['display']);
    const gap = 'gap:an accepted new Display';
    expect(turn(asked(bench, { passed }), 'part:display')).toMatchObject({ isDone: true, said: 'not here yet' });
    expect(answers(asked(bench, { passed }), gap)).toEqual(['without', 'here', 'close-up']);
    const without = new Map([['an accepted new Display', 'the ferry leaves']]);
    expect(turn(asked(bench, { passed, without }), gap)).toMatchObject({
      isDone: true,
      said: 'without: the ferry leaves',
    });
  });

  it('asks for a tool that is not here, with what could stand in', () => {
    const { question } = turn(asked(bench, {}, ['PH000', 'PH00']), 'gap:five-lobe 0.8');
    expect(question).toMatchObject({ title: 'P2 is not here', detail: expect.stringContaining('could stand in') });
    expect(question.answers[0]).toMatchObject({ id: 'here', weight: 'main', gives: { kind: 'shop' } });
  });

  it('begins with empty ticks, and says what has to come first', () => {
    const { question } = turn(asked(bench), 'bench');
    expect(question.list.every(({ isDone }) => !isDone)).toBe(true);
    expect(question.answers).toMatchObject([
      { id: 'all', notNow: 'First: New Display, The owner must know, Battery charge' },
    ]);
  });

  it('records what is ticked, and what is left out with its reason', () => {
    const ids = turn(asked(bench), 'bench').question.list.map(({ id }) => id);
    const done = new Set([ids[0]!]);
    expect(answers(asked(bench, { done }), 'bench')).toEqual(['all', 'rest']);
    const without = new Map(ids.slice(1).map((id) => [id, 'not at hand'] as const));
    const [all] = turn(asked(bench, { done, without }), 'bench').question.answers;
    expect(all!.gives).toMatchObject({
      then: 'bench',
      events: [{ data: { items: [ids[0]], skipped: ids.slice(1).map((item) => ({ item, reason: 'not at hand' })) } }],
    });
  });
});
