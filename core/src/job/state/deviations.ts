import type { BondClosing } from '../events/index.ts';

/** A part that this device has and its map does not; its event's id names it. */
export interface ExtraPart {
  readonly id: string;
  readonly name: string;
  readonly over: { readonly joint?: string; readonly part?: string };
}

/** What this device showed, other than its map says, and what was decided on sight. */
export interface Deviations {
  /** parts that are not there, with what would lie on them */
  readonly missing: ReadonlySet<string>;
  readonly different: ReadonlySet<string>;
  readonly extra: readonly ExtraPart[];
  readonly inspected: ReadonlyMap<string, 'good' | 'failed'>;
  readonly closings: ReadonlyMap<string, BondClosing>;
}

export const AS_MAPPED: Deviations = {
  missing: new Set(),
  different: new Set(),
  extra: [],
  inspected: new Map(),
  closings: new Map(),
};
