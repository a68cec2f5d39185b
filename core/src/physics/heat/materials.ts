import { Refusal, wrong } from '../../model/refusal/index.ts';
/** How a material takes up and conducts heat. */
export interface Material {
  readonly id: string;
  /** thermal conductivity, W/m·K */
  readonly k: number;
  /** density, kg/m³ */
  readonly rho: number;
  /** specific heat capacity, J/kg·K */
  readonly cp: number;
  /** in the plane, where it differs from through the thickness */
  readonly kInPlane?: number;
  readonly source: string;
}

const INCROPERA = 'Incropera & DeWitt, appendix A (from memory)';
const ROUND = 'round figure (from memory)';

/** What a battery is, as a layer of a stack. */
export const POUCH_CELL = 'pouch cell';

/** Figures that a workshop may replace by its own; each says where it comes from (docs/check-values.md, materials). */
export const MATERIALS: readonly Material[] = [
  { id: 'soda-lime glass', k: 1.4, rho: 2500, cp: 750, source: INCROPERA },
  { id: 'aluminium alloy', k: 167, rho: 2700, cp: 896, source: '6061-T6, handbook data (from memory)' },
  { id: 'stainless steel', k: 14.9, rho: 7900, cp: 477, source: INCROPERA },
  { id: 'copper', k: 401, rho: 8933, cp: 385, source: INCROPERA },
  { id: 'polycarbonate', k: 0.2, rho: 1200, cp: 1200, source: ROUND },
  { id: 'acrylic foam tape', k: 0.09, rho: 800, cp: 1700, source: ROUND },
  { id: 'display stack', k: 0.5, rho: 2000, cp: 900, source: ROUND },
  { id: POUCH_CELL, k: 0.8, rho: 2400, cp: 1000, kInPlane: 25, source: ROUND },
  { id: 'still air gap', k: 0.026, rho: 1.2, cp: 1006, source: ROUND },
];

/** What people also call them. */
const ALSO: Readonly<Record<string, string>> = {
  glass: 'soda-lime glass',
  aluminium: 'aluminium alloy',
  aluminum: 'aluminium alloy',
  steel: 'stainless steel',
  'acrylic foam': 'acrylic foam tape',
  adhesive: 'acrylic foam tape',
  display: 'display stack',
  cell: POUCH_CELL,
  air: 'still air gap',
  'air gap': 'still air gap',
};

/** A material by its name, whatever its hyphens and capitals. */
export function materialNamed(name: string, materials: readonly Material[] = MATERIALS): Material | undefined {
  const plain = (text: string) =>
    text
      .toLowerCase()
      .replaceAll(/[\s_-]+/g, ' ')
      .trim();
  const wanted = plain(name);
  const known = ALSO[wanted] ?? wanted;
  return materials.find((each) => plain(each.id) === plain(known));
}

/** The workshop's table: its own figures in place of those that everybody starts with, and what it has added. */
export function materialsWith(own: Iterable<Material>): Material[] {
  const byName = new Map([...MATERIALS, ...own].map((each) => [each.id, each]));
  return [...byName.values()];
}

/**
 * Layers by their figures, so that the workshop's own count.
 * @throws Refusal that names a material which is in no table
 */
export function figuresOfLayers(
  layers: readonly { readonly material: string; readonly thickness: number }[],
  materials: readonly Material[],
): { k: number; rho: number; cp: number; thickness_mm: number }[] {
  return layers.map(({ material, thickness }) => {
    const found = materialNamed(material, materials);
    if (!found)
      throw new Refusal(wrong('', `There is no material “${material}”.`, 'Add it to the table of materials.'));
    return { k: found.k, rho: found.rho, cp: found.cp, thickness_mm: thickness };
  });
}
