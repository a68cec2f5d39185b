import { isZone } from '@nibrel/core/model/calendar';
import Joi from 'joi';
import { lastJobQuery, mapQuery, mapsQuery, shopQuery } from '../app/queries.ts';
import type { Policy } from '@nibrel/core/model/policy';
import type { Said } from '@nibrel/core/workshop/shop';
import { day, decimal } from '../app/format.ts';
import { LIMIT_RANGES, LIMIT_WORDS, type Limits } from '@nibrel/core/model/limits';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';

import { useTellShop } from '../kit/tell-shop.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Offered } from '../ui/offered.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { Schools } from './plan-schools.tsx';
import { temperatureFigure, temperatureUnit, typedTemperature } from '../app/units.ts';
import { NotTold } from '../kit/not-told.tsx';
import { checkedBy, readBy } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

/** How this workshop works where practitioners disagree, and its limits. Jobs start from here and may differ. */
export function SchoolsView() {
  const shop = useQuery(shopQuery).data;
  const maps = useQuery(mapsQuery).data ?? [];
  const [mapId, setMap] = useState('');
  const [part, setPart] = useState('');
  // the repair that was taken in last, until another is picked
  const last = useQuery(lastJobQuery).data?.[0];
  const map = useQuery(mapQuery(mapId || last?.map || maps[0]?.id)).data;
  const tell = useTellShop();
  if (!shop) return <main className="p-8 text-far text-quiet">Fetching the workshop</main>;
  const parts = map?.parts.filter((each) => !each.base) ?? [];
  const wanted = last?.targets.flatMap((each) => ('replace' in each ? [each.replace] : [])) ?? [];
  const shown = parts.find((each) => each.id === part) ?? parts.find((each) => wanted.includes(each.id)) ?? parts[0];
  return (
    <main className="grid grow gap-x-10 px-6 py-5 lg:grid-cols-[minmax(0,1fr)_24rem]">
      <h1 className="sr-only">Ways of working</h1>
      <div className="empty:hidden lg:col-span-2">
        <NotTold error={tell.error} />
      </div>
      <section aria-label="Ways of working here">
        <h2 className="text-far font-bold">Where practitioners disagree</h2>
        <ChangedBy said={shop.schoolsBy} />
        <p className="text-body text-quiet">
          The default of every new job. What each takes and risks is computed for this repair:
        </p>
        <div className="my-3 grid max-w-xl grid-cols-2 gap-4">
          <SelectField
            id="example-map"
            label="Device"
            value={map?.id ?? ''}
            options={maps.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(next) => {
              setMap(next);
              setPart('');
            }}
          />
          <SelectField
            id="example-part"
            label="Replace"
            value={shown?.id ?? ''}
            options={parts.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setPart}
          />
        </div>
        {map && shown && (
          <Schools
            map={map}
            targets={[{ replace: shown.id }]}
            policy={shop.schools}
            limits={shop.limits}
            onPolicy={(change: Partial<Policy>) => tell.mutate({ type: 'schools', data: change })}
          />
        )}
      </section>
      <section aria-label="Limits of this workshop">
        <h2 className="text-far font-bold">Limits</h2>
        <ChangedBy said={shop.limitsBy} />
        <p className="text-body text-quiet">A lead sets them, each within its range.</p>
        <ul className="mt-2 border-t border-ink">
          {(Object.keys(LIMIT_WORDS) as (keyof Limits)[]).map((key) => (
            <Limit
              key={key}
              name={key}
              value={shop.limits[key]}
              onLimit={(value) => tell.mutate({ type: 'limits', data: { [key]: value } })}
            />
          ))}
        </ul>
        <Zone zone={shop.zone} onZone={(zone) => tell.mutate({ type: 'zone', data: { zone } })} />
      </section>
    </main>
  );
}

const zoneSchema = Joi.object<{ zone: string }>({
  zone: checkedBy((zone) => (isZone(zone) ? null : 'A time zone, as Europe/London')),
});

interface LimitProps {
  readonly name: keyof Limits;
  readonly value: number;
  onLimit(value: number): void;
}

/** How a limit is written and read: a share in percent, a temperature in the unit of this bench. */
function writingOf({ unit, percent }: (typeof LIMIT_WORDS)[keyof Limits]) {
  if (unit === '°C') return { unit: temperatureUnit(), write: temperatureFigure, read: typedTemperature };
  const scale = percent ? 100 : 1;
  return {
    unit,
    write: (value: number) => String(Math.round(value * scale * 1000) / 1000),
    read: (typed: string) => {
      const number = decimal(typed);
      return number === null ? null : number / scale;
    },
  };
}

function Limit({ name, value, onLimit }: LimitProps) {
  const words = LIMIT_WORDS[name];
  const { unit, write, read } = writingOf(words);
  const { least, most } = LIMIT_RANGES[name];
  const schema = Joi.object<{ limit: number }>({
    limit: readBy(read, `A number from ${write(least)} to ${write(most)} ${unit}`, least, most),
  });
  const { field, sent, typed, offered } = useFields(schema, { limit: write(value) }, { live: true });
  return (
    <li className="border-b border-hair py-1">
      <form onSubmit={sent(({ limit }) => onLimit(limit))} className="flex items-end gap-3">
        <div className="grow">
          <Field
            id={`limit-${name}`}
            label={`${words.name}, ${unit} (${words.origin})`}
            inputMode="decimal"
            {...field('limit')}
          />
        </div>
        {typed('limit').trim() !== write(value) && <Button type="submit">Set it</Button>}
      </form>
      {offered && <Offered said={write(value)} onTake={offered.take} />}
    </li>
  );
}

function Zone({ zone, onZone }: { readonly zone: string; onZone(zone: string): void }) {
  const { field, sent, typed, offered } = useFields(zoneSchema, { zone });
  return (
    <form onSubmit={sent((said) => onZone(said.zone))} className="mt-3 flex items-end gap-3">
      <div className="grow">
        <Field
          label="Time zone of the workshop"
          hint="Dates are days there, as Europe/London"
          {...field('zone')}
          maxLength={100}
        />
      </div>
      {typed('zone').trim() !== zone && <Button type="submit">Set it</Button>}
      {offered && <Offered said={zone} onTake={offered.take} />}
    </form>
  );
}

function ChangedBy({ said }: { readonly said: Said | null }) {
  return (
    said && (
      <p className="text-note text-quiet">
        Changed last by {said.by}, {day(said.at)}
      </p>
    )
  );
}
