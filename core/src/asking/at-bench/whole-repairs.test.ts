import { describe, expect, it } from 'vitest';
import { Answering } from '../../../test/answering.ts';
import { TestBench } from '../../../test/bench.ts';
import { EFFORT } from '../../../test/effort.ts';
import { demoMaps, dunlinOpen, tern5 } from '../../../test/maps.ts';
import type { Question } from '../question/index.ts';

/** The part that a demo device is brought in for most. */
const usualPart = (map: ReturnType<typeof tern5>) =>
  map.parts.find(({ kind, base }) => kind === 'display' && !base) ?? map.parts.find(({ base }) => !base)!;

/** The rest works where that can be said. */
const restWorks = ({ answers }: Question) => answers.find(({ id }) => id === 'rest-works')?.id;

describe('a repair by its questions alone', () => {
  it.each(demoMaps().map((map) => ({ id: map.id, map })))(
    'of $id leads from taking in to its owner',
    ({ map }) => {
      const answering = new Answering(new TestBench(map, [{ replace: usualPart(map).id }]));
      answering.toTheRecord(restWorks).handedOver();
      expect(answering.bench.state.handedOver).not.toBeNull();
      for (const { title, answers, id } of answering.asked) {
        expect(title, id).toMatch(/\S/);
        expect(`${title} ${answers.map(({ label }) => label).join(' ')}`).not.toMatch(/undefined|NaN/);
        const keys = answers.flatMap(({ key, also }) => [key, ...(also === undefined ? [] : [also])]);
        expect(new Set(keys).size, `${id}: ${keys.join(' ')}`).toBe(keys.length);
        expect(new Set(answers.map((each) => each.id)).size, id).toBe(answers.length);
        expect(answers.filter(({ weight }) => weight === 'main').length, id).toBeLessThan(2);
        expect(
          answers.findIndex(({ key }) => key === ' '),
          id,
        ).toBeLessThan(1);
      }
    },
    120_000 * EFFORT,
  );

  it('takes few presses, and few of them before the first instruction at the bench', () => {
    const presses = (
      map: ReturnType<typeof tern5>,
      part: string,
      instead?: (asked: Question) => string | undefined,
    ) => {
      const answering = new Answering(new TestBench(map, [{ replace: part }]));
      answering.toTheRecord(instead).handedOver();
      const before = answering.asked.findIndex(({ place }) => /to go/.test(place));
      return { all: answering.presses, before };
    };
    const singly = presses(dunlinOpen(), 'display-module');
    const atOnce = presses(dunlinOpen(), 'display-module', restWorks);
    const tern = presses(tern5(), 'display', restWorks);
    expect(tern.all).toBeLessThanOrEqual(65);
    expect(atOnce.before).toBeLessThanOrEqual(15);
    expect(atOnce.all).toBeLessThanOrEqual(42);
    expect(singly.all).toBeLessThanOrEqual(55);
  }, 60_000);

  it('does not pass a failing test, and goes on by what is likely to blame', () => {
    const answering = new Answering(new TestBench(tern5(), [{ replace: 'display' }]));
    let failed = 0;
    answering.toTheRecord((question) => {
      if (question.id === 'failed:touch') return failed++ === 0 ? undefined : 'works';
      if (failed === 0 && question.place.startsWith('Test before'))
        return question.title === 'Touch' ? 'fails' : 'works';
      return restWorks(question);
    });
    const fault = answering.asked.find(({ id }) => id === 'failed:touch')!;
    expect(fault.answers.map(({ id }) => id)).toEqual(['again', 'works', 'fails', 'decide']);
    expect(fault.list[0]).toMatchObject({ text: 'Touch flex', more: expect.stringMatching(/Again: \d+ (s|min) now/) });
    expect(answering.asked.some(({ title }) => title === 'Unplug and reseat it')).toBe(true);
    expect(answering.bench.state.finished).not.toBeNull();
  }, 60_000);

  it('goes on without a part that is not here yet, with the reason, and by the lead of nobody', () => {
    const answering = new Answering(new TestBench(dunlinOpen(), [{ replace: 'display-module' }]));
    answering.toTheRecord((question) => (question.id.startsWith('part:') ? 'not-here' : restWorks(question)));
    const { prepared } = answering.bench.state;
    expect(prepared!.skipped).toEqual([{ item: 'an accepted new Display module', reason: 'because' }]);
  }, 60_000);
});
