/** What is said of water resistance once a seal was opened, by how it was closed again. */
const WATER = {
  reuse: 'The old seal was kept: it is no longer water-resistant, and the owner is told.',
  renew: 'The seal was renewed: water resistance is not proven.',
  glue: 'It was glued: water resistance is not proven, and the next opening takes heat and solvent.',
} as const;

export function waterWords(way: keyof typeof WATER): string {
  return WATER[way];
}
