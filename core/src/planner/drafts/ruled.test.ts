import { describe, expect, it } from 'vitest';
import { afterBy, procedureDraft } from './draft.ts';
import { withoutRings } from './ruled.ts';

const draft = (of: string) => procedureDraft({ name: 'clean', of, seconds: 1, stage: 'rebuild', after: [] });

describe('withoutRings', () => {
  it('leaves drafts whose rules agree as they are', () => {
    const drafts = [draft('a'), afterBy(draft('b'), 'seal', ['clean:a'])];
    expect(withoutRings(drafts)).toBe(drafts);
  });

  it('lets the rule that closes a ring give way', () => {
    const drafts = [afterBy(draft('a'), 'test', ['clean:b']), afterBy(draft('b'), 'seal', ['clean:a'])];
    const kept = withoutRings(drafts).map(({ task }) => [...(task.ruled ?? [])]);
    expect(kept).toEqual([[['clean:b', 'test']], []]);
  });
});
