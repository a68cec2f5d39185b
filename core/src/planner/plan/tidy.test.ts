import { describe, expect, it } from 'vitest';
import type { Admission } from '../order/index.ts';
import type { Task } from '../drafts/task.ts';
import { tidied } from './tidy.ts';

const open: Admission<null> = { start: null, admits: () => true, after: () => null, commits: () => false };
const task = (id: string, tool: string | null, after: string[] = [], face: string | null = null): Task => ({
  id,
  seconds: 1,
  tool,
  face,
  after: new Set(after),
});

describe('tidied', () => {
  it('goes on with what it just began', () => {
    const tasks = [
      task('clean 1', 'scraper'),
      task('dry 1', null, ['clean 1']),
      task('clean 2', 'scraper'),
      task('dry 2', null, ['clean 2']),
    ];
    expect(tidied(tasks, ['clean 1', 'clean 2', 'dry 1', 'dry 2'], open)).toEqual([
      'clean 1',
      'dry 1',
      'clean 2',
      'dry 2',
    ]);
  });

  it('leaves what needs no tool until something needs it', () => {
    const tasks = [
      task('tray', null),
      task('screw 1', 'T2'),
      task('screw 2', 'T2', ['screw 1']),
      task('last', null, ['tray', 'screw 1', 'screw 2']),
    ];
    expect(tidied(tasks, ['tray', 'screw 1', 'screw 2', 'last'], open)).toEqual(['screw 1', 'screw 2', 'tray', 'last']);
  });

  it('never takes up a tool more often than the order it was given', () => {
    const tasks = [task('a', 'T2'), task('b', 'T3', ['a']), task('c', 'T2'), task('d', 'T3', ['c'])];
    const order = tidied(tasks, ['a', 'c', 'b', 'd'], open);
    expect(order.slice(0, 2).sort()).toEqual(['a', 'c']);
  });

  it('keeps to the admission, and gives the order back where that leaves no way', () => {
    const shut: Admission<null> = { ...open, admits: () => false };
    const tasks = [task('a', null), task('b', null)];
    expect(tidied(tasks, ['b', 'a'], shut)).toEqual(['b', 'a']);
  });
});
