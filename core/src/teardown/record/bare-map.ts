import type { DeviceMap, Part } from '../../model/device-map/index.ts';
import { USUAL, USUAL_CELL, USUAL_CELL_LIMIT_C, USUAL_OUTLINE, usualFunctions } from './usual.ts';

/** What is known of a device before anything came off: whatever is left out is taken as usual. */
export interface Unopened {
  readonly id: string;
  readonly name: string;
  readonly kind: DeviceMap['kind'];
  /** mm, as it was typed or measured */
  readonly outline?: Partial<DeviceMap['outline']>;
  /** a device of another kind may have no cell */
  readonly hasCell?: boolean;
}

/** The part that all else is held to, of a map that begins with nothing else. */
export const BARE_BASE = 'frame';
export const BARE_CELL = 'battery';

/**
 * The map of a device that nobody has opened: its outline, a frame, and a cell, since a phone or tablet has one wherever it lies,
 * and care is taken of it from the first screw.
 */
export function bareMap({ id, name, kind, outline: given, hasCell = true }: Unopened): DeviceMap {
  const outline = { ...USUAL_OUTLINE[kind], ...given };
  const corner = Math.min(outline.corner, outline.width / 2, outline.height / 2);
  const whole = { x: 0, y: 0, w: outline.width, h: outline.height };
  const frame: Part = {
    id: BARE_BASE,
    name: USUAL.frame.name,
    kind: 'frame',
    face: 'front',
    box: whole,
    z: { top: 0, bottom: outline.thickness },
    base: true,
  };
  const [width, height] = USUAL.battery.share;
  const cell: Part = {
    id: BARE_CELL,
    name: USUAL.battery.name,
    kind: 'battery',
    face: 'front',
    box: {
      x: (outline.width * (1 - width)) / 2,
      y: (outline.height * (1 - height)) / 2,
      w: outline.width * width,
      h: outline.height * height,
    },
    z: { top: 0, bottom: outline.thickness },
    hazards: USUAL.battery.hazards,
  };
  return {
    format: 'nibrel.device-map',
    version: 1,
    id,
    name,
    kind,
    outline: { ...outline, corner },
    battery: hasCell ? { part: BARE_CELL, cells: [USUAL_CELL], wiring: 'parallel', limit_C: USUAL_CELL_LIMIT_C } : null,
    fasteners: [],
    parts: hasCell ? [frame, cell] : [frame],
    joints: hasCell ? [{ id: 'battery-seat', type: 'seat', holds: [BARE_CELL], to: BARE_BASE, face: 'front' }] : [],
    functions: usualFunctions(kind),
    origin: { guesses: [], unplaced: hasCell ? [BARE_CELL] : [], unmeasured: [] },
    cautions: ['Nobody has opened this device here before: what lies beneath is not known.'],
  };
}

/** A map that begins with nothing but a frame and a cell: everything else is told. */
export function isBare({ parts, joints }: Pick<DeviceMap, 'parts' | 'joints'>): boolean {
  return (
    parts.every(({ base, id }) => base === true || id === BARE_CELL) && joints.every(({ type }) => type === 'seat')
  );
}
