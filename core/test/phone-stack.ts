import type { HeatRequest } from '../src/physics/heat/index.ts';

/** A phone's front on a plate for five minutes, six layers: panel, its foam, the frame, air, the cell, the back. Invented. */
export const FRONT_ON_PLATE = {
  layers: [
    { material: 'display stack', thickness_mm: 1.6 },
    { material: 'acrylic foam tape', thickness_mm: 0.3 },
    { material: 'aluminium alloy', thickness_mm: 1 },
    { material: 'still air gap', thickness_mm: 0.4 },
    { material: 'pouch cell', thickness_mm: 4.4 },
    { material: 'soda-lime glass', thickness_mm: 0.8 },
  ],
  source: { kind: 'plate', temp_C: 70, contact_W_m2K: 300 },
  after: { h_W_m2K: 12, temp_C: 22 },
  far: { h_W_m2K: 8, temp_C: 22 },
  initial_C: 22,
  heat_s: 300,
} satisfies Partial<HeatRequest>;
