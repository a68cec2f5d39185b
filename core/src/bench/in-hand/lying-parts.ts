import { extraOff } from '../../job/rules/index.ts';
import type { JobState } from '../../job/state/index.ts';
import { type Mechanism, OFF } from '../../planner/holds/index.ts';
import { partName, plural } from '../../planner/words/index.ts';

/** A part that lies on the mat, with what is on it. */
export interface LyingPart {
  readonly id: string;
  /** *Old Display, 3 parts on it* */
  readonly text: string;
}

/** Every part that is out of the device, what came out last first; what is on another lies with it. */
export function lyingParts({ map, base }: Mechanism, state: JobState): readonly LyingPart[] {
  const { status, group } = state.device;
  const lying = map.parts.flatMap(({ id }, index) => {
    if (index === base || status[index] !== OFF || group[index] !== index) return [];
    const on = map.parts.filter((_, each) => each !== index && group[each] === index).length;
    const isOld = state.targets.some((each) => 'replace' in each && each.replace === id);
    const name = `${isOld ? 'Old ' : ''}${partName(map, id)}`;
    return [{ id, text: on > 0 ? `${name}, ${plural(on, 'part')} on it` : name }];
  });
  const lifted = state.done.flatMap((op) => (op.kind === 'lift' && op.part !== undefined ? [op.part] : []));
  const last = (id: string) => lifted.lastIndexOf(id);
  return [
    ...extraOff(state).map(({ id, name }) => ({ id, text: name })),
    ...lying.toSorted((a, b) => last(b.id) - last(a.id)),
  ];
}
