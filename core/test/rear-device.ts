import type { DeviceMap } from '../src/model/device-map/index.ts';

const box = (x: number, y: number, w: number, h: number) => ({ x, y, w, h });
const beneath = [{ part: 'back', until: 'off' }];
const bolt = (id: string, holds: string, x: number, more: object = {}) => ({
  id,
  type: 'screw',
  holds: [holds],
  to: 'frame',
  face: 'back',
  fastener: 'short',
  points: [{ id: 'a', x, y: 8, depth: 2, below: 'metal' }],
  ...more,
});
const plug = (id: string, holds: string, functions: readonly string[], more: object = {}) => ({
  id,
  type: 'connector',
  style: 'press',
  holds: [holds],
  to: 'board',
  face: 'back',
  functions,
  under: beneath,
  ...more,
});

/** A device whose display is plugged in from the back, with parts and joints of its own beside those it always has. */
export function rearDevice(
  more: {
    parts?: readonly object[];
    joints?: readonly object[];
    display?: object;
    seal?: object;
    cellPlug?: object;
  } = {},
): DeviceMap {
  const map = {
    format: 'nibrel.device-map',
    version: 1,
    id: 'rear',
    name: 'Rear',
    kind: 'phone',
    outline: { width: 70, height: 140, thickness: 8, corner: 8 },
    battery: { part: 'cell', cells: [{ capacity_mAh: 3000, nominal_V: 3.85 }], wiring: 'parallel', limit_C: 60 },
    fasteners: [{ id: 'short', drive: 'PH000', thread: 'M1.2x0.25', length: 1.6, head: 1.8 }],
    functions: [
      { id: 'picture', name: 'Picture', how: 'Look for lines' },
      { id: 'starts', name: 'Starts', how: 'Hold the key' },
    ],
    parts: [
      {
        id: 'frame',
        name: 'Frame',
        kind: 'frame',
        face: 'front',
        box: box(0, 0, 70, 140),
        z: { top: 1, bottom: 8 },
        base: true,
      },
      {
        id: 'display',
        name: 'Display',
        kind: 'display',
        face: 'front',
        box: box(1, 1, 68, 138),
        z: { top: 0, bottom: 2 },
        functions: ['picture'],
        ...more.display,
      },
      { id: 'back', name: 'Back', kind: 'cover', face: 'back', box: box(1, 1, 68, 138), z: { top: 7, bottom: 8 } },
      {
        id: 'board',
        name: 'Board',
        kind: 'board',
        face: 'back',
        box: box(5, 5, 50, 40),
        z: { top: 4, bottom: 6 },
        under: beneath,
      },
      {
        id: 'cell',
        name: 'Battery',
        kind: 'battery',
        face: 'back',
        box: box(8, 60, 40, 60),
        z: { top: 3, bottom: 6 },
        hazards: ['lithium'],
        under: beneath,
      },
      ...(more.parts ?? []),
    ],
    joints: [
      {
        id: 'seal',
        type: 'bond',
        style: 'perimeter',
        holds: ['display'],
        to: 'frame',
        face: 'front',
        soften_C: 65,
        heat: true,
        width: 1.5,
        segments: [{ id: 'bottom', from: { x: 2, y: 139 }, to: { x: 68, y: 139 }, depth: 3 }],
        ...more.seal,
      },
      { id: 'back-clips', type: 'clip', holds: ['back'], to: 'frame', face: 'back' },
      bolt('board-screws', 'board', 8, { under: beneath }),
      plug('display-plug', 'display', ['picture']),
      plug('cell-plug', 'cell', ['starts'], { isolates: true, ...more.cellPlug }),
      { id: 'cell-tabs', type: 'bond', style: 'tabs', holds: ['cell'], to: 'frame', face: 'back', under: beneath },
      ...(more.joints ?? []),
    ],
  };
  return map as unknown as DeviceMap;
}

/** Its display is screwed down from the back, beneath the board: it is glued down before anything can be plugged. */
export const screwedFromBehind = () =>
  rearDevice({
    seal: { under: [{ joint: 'display-screws' }] },
    joints: [bolt('display-screws', 'display', 30, { under: [{ part: 'board', until: 'off' }] })],
  });

/** A trim lies over the rim of its display, and goes on when that is down. */
export const trimmed = () =>
  rearDevice({
    display: { under: [{ part: 'trim', until: 'off' }] },
    seal: { under: [{ part: 'trim', until: 'off' }] },
    cellPlug: { face: 'front', under: [{ part: 'display', until: 'open' }] },
    parts: [
      { id: 'trim', name: 'Trim', kind: 'bracket', face: 'front', box: box(1, 130, 68, 8), z: { top: 0, bottom: 1 } },
    ],
    joints: [bolt('trim-screws', 'trim', 60, { face: 'front' })],
  });
