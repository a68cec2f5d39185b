import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { JobState } from '@nibrel/core/job/state';
import { lookAlikes } from '@nibrel/core/screws/mix-ups';
import { type Policy, settled } from '@nibrel/core/model/policy';
import { screwLetters } from '@nibrel/core/screws/screws';
import { heldName } from '@nibrel/core/planner/words';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { ScrewMark } from '../ui/screw-mark.tsx';
import { useKeepings } from './use-keepings.ts';

interface KeepingSchoolsProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  onSchool(school: Policy['screws']): void;
}

const NAMES: Readonly<Record<Policy['screws'], string>> = {
  'map-mat': 'Map mat',
  'containers-per-stage': 'A container per stage',
  'containers-apart': 'Look-alikes apart',
};

/** How they are kept: each way with its risk on this device, and the pairs that are easily taken for each other. */
export function KeepingSchools({ map, state, onSchool }: KeepingSchoolsProps) {
  const { keepings, problem } = useKeepings(map, state);
  const letters = screwLetters(map);
  const school = settled(map, state.policy).policy.screws;
  const joints = useMemo(() => keepings.flatMap(({ kept }) => kept.flatMap((each) => each.joints)), [keepings]);
  const alike = useMemo(() => lookAlikes(map, joints, state.limits), [map, joints, state.limits]);
  return (
    <section aria-label="How they are kept">
      <h2 className="text-far font-bold">How they are kept</h2>
      <p className="text-body text-quiet">
        The risk is the chance that one is taken for another, times what that costs. {state.limits.containers}{' '}
        containers stand here; that figure, and how well an eye judges a length, are set in{' '}
        <Link to="/schools" className="underline">
          Ways of working
        </Link>
        .
      </p>
      {problem && (
        <Trouble title="Not computed">
          <p>{problem}</p>
        </Trouble>
      )}
      <div className="mt-3 grid gap-6 lg:grid-cols-3">
        {keepings.map((keeping) => (
          <article key={keeping.school} aria-label={NAMES[keeping.school]} className="border-t-4 border-ink pt-2">
            <h3 className="text-lead font-bold">{NAMES[keeping.school]}</h3>
            <p className="text-far font-bold">
              {minutes(keeping.risk_min)}
              <span className="block text-body leading-tight font-normal text-quiet">to be expected</span>
            </p>
            <ul className="mt-1 max-h-64 overflow-y-auto">
              {keeping.kept.map(({ name, fasteners }) => (
                <li key={name} className="flex flex-wrap items-center gap-x-3 border-b border-hair py-1 text-body">
                  <span className="text-quiet">{keeping.school === 'map-mat' ? heldName(map, name) : name}</span>
                  {fasteners.map((id) => (
                    <b key={id}>{letters.get(id)!.letter}</b>
                  ))}
                </li>
              ))}
            </ul>
            <div className="mt-2">
              {keeping.school === school ? (
                <p className="min-h-12 text-body font-bold">This is how this repair keeps them.</p>
              ) : (
                <Button onClick={() => onSchool(keeping.school)}>Keep them this way</Button>
              )}
            </div>
          </article>
        ))}
      </div>
      <h3 className="mt-6 text-lead font-bold">Easily taken for each other</h3>
      {alike.length === 0 ? (
        <p className="text-body text-quiet">No two kinds that come out do harm in each other’s holes.</p>
      ) : (
        <ul className="border-t border-ink">
          {alike.slice(0, MOST_PAIRS).map(({ a, b, chance, hurt_min, risk_min }) => (
            <li key={`${a} ${b}`} className="flex flex-wrap items-center gap-x-5 border-b border-hair py-1 text-body">
              <ScrewMark mark={letters.get(a)!} />
              <ScrewMark mark={letters.get(b)!} />
              <span className="w-36">mixed up in {percent(chance)}</span>
              <span className="w-44 text-quiet">costs {minutes(hurt_min)} a pair</span>
              <span>{minutes(risk_min)} to be expected in one container</span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

const MOST_PAIRS = 8;

function minutes(value: number): string {
  return value < 0.05 ? 'next to nothing' : value < 10 ? `${value.toFixed(1)} min` : `${Math.round(value)} min`;
}

function percent(chance: number): string {
  return chance < 0.01 ? 'under 1 %' : `${Math.round(chance * 100)} %`;
}
