import { GLASS_FILM_OFF, opId } from '../drafts/index.ts';
import type { DeviceMap } from '../device-map/index.ts';
import { partName, thingName } from '../words/index.ts';
import type { JobState } from './state.ts';

/** Something that was put on for the work and has to come off again: a film, a liner, picks. */
export interface PutOn {
  readonly id: string;
  readonly kind: 'film' | 'liner' | 'pick';
  readonly text: string;
}

/** What is on or in the device that does not stay there, as a ledger like that of the screws. */
export function putOn(map: DeviceMap, { steps, opening, device }: JobState): PutOn[] {
  const isOn = (on: string, off: string) => (steps.get(on) ?? 0) > (steps.get(off) ?? 0);
  const glass: PutOn[] = isOn('film', GLASS_FILM_OFF) ? [{ id: 'film', kind: 'film', text: 'Film on the glass' }] : [];
  const films = map.parts.flatMap(({ id }): PutOn[] =>
    isOn(opId('film', id), opId('film-off', id))
      ? [{ id: opId('film', id), kind: 'film', text: `Film on ${partName(map, id)}` }]
      : [],
  );
  const liners = map.joints.flatMap((joint, number): PutOn[] =>
    joint.type === 'bond' && device.released[number] && isOn(opId('lay', joint.id), opId('liner-off', joint.id))
      ? [{ id: opId('lay', joint.id), kind: 'liner', text: `Liner on ${thingName(map, joint.id)}` }]
      : [],
  );
  const picks = [...opening.placeholders].flatMap(([joint, { material, count }]): PutOn[] =>
    count > 0 ? [{ id: `pick:${joint}`, kind: 'pick', text: `${count} ${material} in ${thingName(map, joint)}` }] : [],
  );
  return [...glass, ...films, ...liners, ...picks];
}
