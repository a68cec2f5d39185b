import { isOuter } from '../../model/device-map/index.ts';
import type { Mechanism } from '../holds/index.ts';
import type { Precedence } from '../search/index.ts';
import { afterBy, type Draft, procedureDraft } from './draft.ts';
import { TIMES } from './estimates.ts';
import { downOf, opId } from './op-id.ts';

/** Films off what was covered while bare, and off new parts before the first piece goes on them. */
export function withFilmsOff(
  mechanism: Mechanism,
  path: Precedence,
  drafts: readonly Draft[],
  replaced: ReadonlySet<number>,
): Draft[] {
  const moved = new Set(path.ops.flatMap((op) => (op.kind === 'release' ? [] : [op.part])));
  const lifted = new Set(path.ops.flatMap((op) => (op.kind === 'lift' ? [op.part] : [])));
  const ids = new Set<string>(drafts.map(({ op }) => op.id));
  const films = mechanism.map.parts.flatMap((part, number): { draft: Draft; until: string[] }[] => {
    const fresh = replaced.has(number) && (part.film || isOuter(part));
    const over = (part.under ?? []).flatMap((entry) => ('part' in entry ? [entry.part] : []));
    const bare = over.length > 0 ? over.some((id) => moved.has(mechanism.part.get(id)!)) : lifted.has(number);
    if (!fresh && !(part.film && bare)) return [];
    const down = over.length > 0 ? over.flatMap((id) => downOf(ids, id)) : downOf(ids, part.id);
    if (!fresh && down.length === 0) return [];
    const until = fresh ? [...down, ...opsOnto(drafts, number), opId('fit', part.id)] : down;
    const draft = procedureDraft({
      name: 'film-off',
      part: part.id,
      seconds: TIMES.filmPart,
      stage: 'rebuild',
      after: [],
    });
    return [{ draft, until }];
  });
  const body = drafts.map((draft) =>
    afterBy(
      draft,
      'film',
      films.flatMap((film) => (film.until.includes(draft.op.id) ? [film.draft.op.id] : [])),
    ),
  );
  return [...body, ...films.map(({ draft }) => draft)];
}

/** What is put on a part while it lies on the mat. */
function opsOnto(drafts: readonly Draft[], part: number): string[] {
  return drafts.flatMap(({ op, task }) =>
    task.physical?.kind === 'fit' && task.physical.onto === part ? [op.id as string] : [],
  );
}
