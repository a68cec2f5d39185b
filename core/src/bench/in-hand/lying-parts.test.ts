import { expect, it } from 'vitest';
import { Answering } from '../../../test/answering.ts';
import { TestBench } from '../../../test/bench.ts';
import { tern5 } from '../../../test/maps.ts';
import { lyingParts } from './lying-parts.ts';

it('is each part that is out, the last first, the old one with what is still on it; in the end none', () => {
  const map = tern5();
  const answering = new Answering(new TestBench(map, [{ replace: 'display' }]));
  const seen: string[] = [];
  answering.toTheRecord(({ answers }) => {
    const { mechanism, state } = answering.bench;
    const now = lyingParts(mechanism, state)
      .map(({ text }) => text)
      .join('; ');
    if (seen.at(-1) !== now) seen.push(now);
    return answers.find(({ id }) => id === 'rest-works')?.id;
  });
  expect(seen[0]).toBe('');
  expect(seen).toContain('Old Display, 4 parts on it; Connector lid; Card tray');
  expect(seen.at(-1)).toBe('');
}, 30_000);
