/** What is said of water resistance once a seal was opened, by how it was closed again. */
const WATER = {
  reuse: 'Old seal kept: no longer water-resistant, and the owner is told.',
  renew: 'Seal renewed: water resistance is not proven.',
  glue: 'Glued: water resistance is not proven, and the next opening takes heat and solvent.',
} as const;

export function waterWords(way: keyof typeof WATER): string {
  return WATER[way];
}
