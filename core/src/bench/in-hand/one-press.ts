import type { Op } from '../../planner/drafts/index.ts';
import type { HeatSetting } from '../../physics/heat/index.ts';
import type { ShopEventData } from '../../workshop/shop/index.ts';
import type { Said } from './said.ts';
import type { WarmBond } from './warm-bond.ts';

/** What a workshop learns from a job and keeps. */
type Taught = {
  readonly [Type in 'source' | 'drag']: { readonly type: Type; readonly data: ShopEventData[Type] };
}['source' | 'drag'];

export type Does =
  /** said one after the other, each only where the one before it was taken */
  | {
      readonly kind: 'say';
      readonly events: readonly Said[];
      /** what it teaches the workshop: of a source by its readings, of a bond by how it cuts */
      readonly teaches?: Taught;
    }
  | { readonly kind: 'go'; readonly to: 'prepare' | 'record' }
  /** something has to be answered first */
  | { readonly kind: 'ask'; readonly about: 'transplant' | 'wet' }
  | { readonly kind: 'nothing' };

/** What Space, the pedal and the main button do. */
export interface NextPress {
  /** what stands on the button; empty where there is none */
  readonly label: string;
  /** false: nothing is done, and that is heard */
  readonly isAllowed: boolean;
  readonly does: Does;
  /** the operations that it does, the one in hand first */
  readonly ops: readonly Op[];
  /** what ends a wait before its time, where something is waited for */
  readonly endsWait: Does | null;
  /** one more warming of the bond that is cut: a key of its own, never what Space turns into */
  readonly heatAgain?: Does;
  /** the open seam drags: where is recorded, and heat, or solvent, is put before the rest */
  readonly drags?: Does;
  /** the source that was chosen goes on, though it is foreseen not to do */
  readonly allTheSame?: Does;
  /** a plug is pressed home, and nobody is sure that it clicked: only this one is done */
  readonly notSure?: Does;
}

/** What the bench knows beside the job: what is foreseen, and what was chosen there. All of it may be left out. */
export interface AtHand {
  /** how warm the bond in hand is, as foreseen */
  readonly warm?: WarmBond | null;
  /** the chosen source as it is set up; none while nobody knows it */
  readonly setting?: HeatSetting | null;
  /** the chosen source will not do, as foreseen: what will, where any does */
  readonly hopeless?: { readonly instead: HeatSetting | null };
  /** a source that only stands in for one */
  readonly standIn?: { readonly simulated: true; readonly pace: number };
  /** drops of solvent */
  readonly drops?: number;
  /** where heat and solvent are used, in a workshop with several benches */
  readonly bench?: string;
}

export const NOTHING: NextPress = { label: '', isAllowed: false, does: { kind: 'nothing' }, ops: [], endsWait: null };

/** A press that does this. */
export function pressing(label: string, does: Does, isAllowed = true): NextPress {
  return { label, isAllowed, does, ops: [], endsWait: null };
}

export function say(...events: readonly Said[]): Does {
  return { kind: 'say', events };
}

export function tenths(value: number): number {
  return Math.round(value * 10) / 10;
}
