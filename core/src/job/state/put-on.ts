import { GLASS_FILM_OFF, opId } from '../../planner/drafts/index.ts';
import { type DeviceMap, isOuter, isSelfParting, isTether, tabsOf } from '../../model/device-map/index.ts';
import { OPEN } from '../../planner/holds/index.ts';
import { lower, partName, thingName } from '../../planner/words/index.ts';
import { settled } from '../../model/policy/index.ts';
import { renewalNow } from './renewal-now.ts';
import type { JobState } from './job-state.ts';

/** Something that was put on for the work and has to come off again: film, tape, liner, picks, cup, block. */
export interface PutOn {
  readonly id: string;
  readonly kind: 'film' | 'tape' | 'liner' | 'pick' | 'cup' | 'prop';
  readonly text: string;
}

/** Is a part's glass under tape? What was renewed has taken its tape along. */
export function isTaped({ steps, done }: Pick<JobState, 'steps' | 'done'>, part: string): boolean {
  const isOn = (steps.get(opId('tape', part)) ?? 0) > (steps.get(opId('tape-off', part)) ?? 0);
  return isOn && !done.some((op) => op.kind === 'fit' && op.part === part && op.new);
}

/** What is on or in the device that does not stay there, as a ledger like that of the screws. */
export function putOn(map: DeviceMap, state: JobState): PutOn[] {
  const { steps, opening, device } = state;
  const isOn = (on: string, off: string) => (steps.get(on) ?? 0) > (steps.get(off) ?? 0);
  const glass: PutOn[] = isOn('film', GLASS_FILM_OFF) ? [{ id: 'film', kind: 'film', text: 'Film on the glass' }] : [];
  const films = map.parts.flatMap(({ id }): PutOn[] =>
    isOn(opId('film', id), opId('film-off', id))
      ? [{ id: opId('film', id), kind: 'film', text: `Film on ${partName(map, id)}` }]
      : [],
  );
  const liners = map.joints.flatMap((joint, number): PutOn[] => {
    if (joint.type !== 'bond' || !isOn(opId('lay', joint.id), opId('liner-off', joint.id))) return [];
    // glue has none
    if (renewalNow(map, state, joint) === 'liquid') return [];
    const liner = { id: opId('lay', joint.id), kind: 'liner' } as const;
    const name = thingName(map, joint.id);
    // what was closed over it, whatever was said, has to be opened again
    return [{ ...liner, text: device.released[number] ? `Liner on ${name}` : `Liner sealed in at ${name}` }];
  });
  const picks = [...opening.placeholders].flatMap(([joint, { material, count }]): PutOn[] =>
    count > 0 ? [{ id: `pick:${joint}`, kind: 'pick', text: `${count} ${material} in ${thingName(map, joint)}` }] : [],
  );
  const tapes = map.parts.flatMap(({ id }): PutOn[] =>
    isTaped(state, id) ? [{ id: opId('tape', id), kind: 'tape', text: `Tape on ${partName(map, id)}` }] : [],
  );
  return [...glass, ...tapes, ...films, ...liners, ...picks, ...cups(map, state), ...props(map, state)];
}

/** A cup stays on from the first gap until the part is loose. */
function cups(map: DeviceMap, { opening, device, policy }: JobState): PutOn[] {
  const { firstGap } = settled(map, policy).policy;
  if (firstGap !== 'one-cup' && firstGap !== 'two-cup') return [];
  const name = firstGap === 'one-cup' ? 'Cup' : 'Two-cup clamp';
  return map.joints.flatMap((joint, number): PutOn[] => {
    // what is pulled by its tabs needs no cup
    const isPulled = joint.type === 'bond' && tabsOf(joint).length > 0;
    const isBegun = !isPulled && (opening.cut.get(joint.id)?.size ?? 0) > 0 && !device.released[number];
    const held = joint.holds[0]!;
    return isBegun ? [{ id: `cup:${joint.id}`, kind: 'cup', text: `${name} on ${partName(map, held)}` }] : [];
  });
}

/** What stands open at an angle leans on a block until it is closed or lifted. */
function props(map: DeviceMap, { device }: JobState): PutOn[] {
  // what nothing ties stands on no block
  const isTied = (id: string) =>
    map.joints.some((each) => isTether(each) && !isSelfParting(each) && (each.to === id || each.holds.includes(id)));
  return map.parts.flatMap((part, number): PutOn[] =>
    part.opens && isOuter(part) && isTied(part.id) && device.status[number] === OPEN
      ? [{ id: `prop:${part.id}`, kind: 'prop', text: `Prop under the ${lower(partName(map, part.id))}` }]
      : [],
  );
}
