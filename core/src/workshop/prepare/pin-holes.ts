import type { DeviceMap, Part, PinHole } from '../../model/device-map/index.ts';

/** Holes that a tray pin could be put into, and what is right or ruined behind each. */
export interface PinHoles {
  readonly right: readonly PinHole[];
  readonly wrong: readonly (PinHole & { readonly harm: string })[];
  /** microphones whose hole the map does not show */
  readonly unmapped: readonly Part[];
}

/** The hole of a tray, and every microphone hole, straight or angled. */
export function pinHoles(map: DeviceMap, tray: string): PinHoles {
  const holes = map.pinHoles ?? [];
  const microphones = holes.filter((each) => each.kind === 'microphone');
  return {
    right: holes.filter((each) => each.kind === 'tray' && each.part === tray),
    wrong: microphones.map((each) => ({
      ...each,
      harm:
        each.channel === 'angled'
          ? 'its channel turns a corner: a pin stops there, mostly without harm'
          : each.channel === 'straight'
            ? 'its channel is straight: a pin pierces the microphone'
            : 'whether its channel is straight is not known: keep out',
    })),
    unmapped: map.parts.filter(
      (part) => part.kind === 'microphone' && !microphones.some((each) => each.part === part.id),
    ),
  };
}
