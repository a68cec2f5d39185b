import { dropsOf } from '@nibrel/core/job/state';
import { airing } from '@nibrel/core/physics/solvent';
import { countdown, plural } from '@nibrel/core/planner/words';
import { useState } from 'react';
import { Choice } from '../../ui/choice.tsx';
import type { Hand } from './hand.ts';
import type { OpeningWork } from './work.ts';
import { temperature } from '../../app/units.ts';

const DROPS = ['2', '4', '6', '10', '15'] as const;
type Drops = (typeof DROPS)[number];

/** Solvent on a bond: only with the source off and away and the bond cool; its drops are counted for the airing after. */
export function useSoaking({ state, op, warm }: OpeningWork): { readonly hand: Hand | null; readonly drops: number } {
  const [chosen, setChosen] = useState<Drops>('4');
  const drops = Number(chosen);
  if (op?.name !== 'soak') return { hand: null, drops };
  const hottest = warm?.bond_C?.high;
  const coolIn_s = warm?.off?.coolIn_s ?? null;
  const together = dropsOf(state.opening) + drops;
  const { seconds } = airing(together, state.limits);
  const hand = {
    body: (
      <div className="flex flex-col gap-3">
        <div className="flex flex-wrap items-center gap-3">
          <span className="text-body text-quiet">Drops</span>
          <Choice label="Drops" value={chosen} options={DROPS} onChange={setChosen} />
        </div>
        <p className="text-body text-quiet">
          {hottest === undefined
            ? `Nothing here is predicted to be warm. Only below ${temperature(state.limits.solventBelow_C)}, by touch.`
            : coolIn_s === 0
              ? `What was warmed last is at ${temperature(hottest)} at most, below the ${temperature(state.limits.solventBelow_C)} for solvent.`
              : `What was warmed last is at up to ${temperature(hottest)}; solvent only below ${temperature(state.limits.solventBelow_C)}${coolIn_s === null ? '' : `, in about ${countdown(coolIn_s)}`}.`}{' '}
          After {plural(together, 'drop')} the bench is aired for {countdown(seconds)} before any heat.
        </p>
      </div>
    ),
  };
  return { hand, drops };
}
