import type { DeviceMap } from '../../model/device-map/index.ts';

/** A screw kind's letter, and its length relative to the longest of the device: letter and bar go together. */
export interface ScrewLetter {
  readonly letter: string;
  readonly length_mm: number;
  readonly share: number;
  readonly drive: string;
  /** false where nobody has measured one yet: then its length only stands for it */
  readonly isMeasured: boolean;
}

/** Letters in the order of the map's fasteners: A … Z, then AA, AB … */
export function screwLetters(map: DeviceMap): ReadonlyMap<string, ScrewLetter> {
  const longest = Math.max(...map.fasteners.map((each) => each.length));
  return new Map(
    map.fasteners.map(({ id, length, drive }, index) => [
      id,
      {
        letter: letterOf(index),
        length_mm: length,
        share: length / longest,
        drive,
        isMeasured: !map.origin?.unmeasured.includes(id),
      },
    ]),
  );
}

function letterOf(index: number): string {
  const last = String.fromCharCode(65 + (index % 26));
  return index < 26 ? last : letterOf(Math.floor(index / 26) - 1) + last;
}
