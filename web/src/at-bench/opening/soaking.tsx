import { dropsOf } from '@nibrel/core/job';
import { airing } from '@nibrel/core/solvent';
import { plural } from '@nibrel/core/words';
import { useState } from 'react';
import { countdown } from '../../app/format.ts';
import { atBench } from '../../app/settings.ts';
import { Choice } from '../../ui/choice.tsx';
import type { Hand } from './hand.ts';
import type { OpeningWork } from './work.ts';
import { temperature } from '../../app/units.ts';

const DROPS = ['2', '4', '6', '10', '15'] as const;
type Drops = (typeof DROPS)[number];

/** Solvent on a bond: only with the source off and away and the bond cool; its drops are counted for the airing after. */
export function useSoaking({ bench, state, op, bond, warmth }: OpeningWork): Hand | null {
  const [drops, setDrops] = useState<Drops>('4');
  if (op?.name !== 'soak' || !bond) return null;
  const hottest = warmth?.bond_C?.high;
  const coolIn_s = warmth?.off?.coolIn_s ?? null;
  const together = dropsOf(state.opening) + Number(drops);
  const { seconds } = airing(together, state.limits);
  const press = async () => {
    const reached = hottest === undefined ? {} : { bond_C: Math.round(hottest * 10) / 10 };
    const taken = await bench.send('solvent', {
      joint: bond.id,
      drops: Number(drops),
      away: true,
      ...reached,
      ...atBench(),
    });
    if (taken) await bench.send('timer', { step: op.id, seconds: op.wait_s ?? 240 });
  };
  return {
    label: 'Source off and away, solvent on',
    body: (
      <div className="flex flex-col gap-3">
        <div className="flex flex-wrap items-center gap-3">
          <span className="text-body text-quiet">Drops</span>
          <Choice
            label="Drops"
            value={drops}
            options={DROPS.map((value) => ({ value, label: value }))}
            onChange={setDrops}
          />
        </div>
        <p className="text-body text-quiet">
          {hottest === undefined
            ? `Nothing is foreseen to be warm here. Only below ${temperature(state.limits.solventBelow_C)}, by touch.`
            : coolIn_s === 0
              ? `What was warmed last is at ${temperature(hottest)} at most, below the ${temperature(state.limits.solventBelow_C)} for solvent.`
              : `What was warmed last is at up to ${temperature(hottest)}; solvent only below ${temperature(state.limits.solventBelow_C)}${coolIn_s === null ? '' : `, in about ${countdown(coolIn_s)}`}.`}{' '}
          After {plural(together, 'drop')} the bench is aired for {countdown(seconds)} before any heat.
        </p>
      </div>
    ),
    press: () => void press(),
  };
}
