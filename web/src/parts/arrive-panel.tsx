import Joi from 'joi';
import { mapQuery, openJobsQuery, shopQuery } from '../app/queries.ts';
import type { ShopNow } from '@nibrel/core/api';
import { type CalendarDate, calendarDate } from '@nibrel/core/model/calendar';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';

import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Field } from '../ui/field.tsx';
import type { Closing } from '../ui/form.ts';
import { Panel } from '../ui/panel.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { useTellDesk } from './tell-desk.ts';
import { figure, note, words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface Arrived {
  readonly source: string;
  readonly arrived: CalendarDate;
  readonly window_days: number;
  readonly price: string;
  readonly variant: string;
}

const schema = Joi.object<Arrived>({
  source: words('Needed: supplier, as in Harbour Parts, new', 200),
  arrived: calendarDate.required().messages({ '*': 'A date' }),
  window_days: figure('Days, 0 or more; 0 where it can not go back', { least: 0, most: 3650, isWhole: true }),
  price: note(200),
  variant: note(200),
});

/** The repair and the part of its device that are brought along; what is looked at first where none are. */
interface For {
  readonly job?: string;
  readonly part?: string;
}

/** A part as it arrives: for which repair and which part of the device, where from, and how long it may go back. */
export function ArrivePanel({ open, onClose, job = '', part = '' }: Closing & For) {
  const shop = useQuery(shopQuery).data;
  return (
    <Panel title="A part arrived" said="Then it is looked at, and decided on." open={open} onClose={onClose}>
      {open && shop && <Arrival shop={shop} job={job} part={part} onClose={onClose} />}
    </Panel>
  );
}

function Arrival({
  shop,
  job: forJob,
  part: forPart,
  onClose,
}: Required<For> & { readonly shop: ShopNow; onClose(): void }) {
  const navigate = useNavigate();
  const jobs = useQuery(openJobsQuery).data ?? [];
  const [jobId, setJob] = useState(forJob);
  const job = jobs.find((each) => each.id === jobId) ?? jobs[0];
  const map = useQuery(mapQuery(job?.map, job?.mapRevision)).data;
  const wanted = job?.targets.flatMap((each) => ('replace' in each ? [each.replace] : [])) ?? [];
  const parts = (map?.parts ?? [])
    .filter((each) => !each.base)
    .toSorted((a, b) => Number(wanted.includes(b.id)) - Number(wanted.includes(a.id)));
  const [mapPart, setPart] = useState(forPart);
  const tell = useTellDesk(job?.id ?? '');
  const chosen = parts.find((each) => each.id === mapPart) ?? parts[0];
  const { field, sent } = useFields(
    schema,
    {
      source: '',
      arrived: shop.today as string,
      window_days: String(shop.limits.returnWindow_days),
      price: '',
      variant: '',
    },
    { live: true },
  );
  const take = sent(({ price, variant, ...said }) => {
    if (!job || !chosen) return;
    const part = crypto.randomUUID();
    const more = { ...(price ? { price } : {}), ...(variant ? { variant } : {}) };
    const data = { part, mapPart: chosen.id, ...said, ...more };
    tell.mutate(
      { type: 'part-arrived', data },
      {
        onSuccess: () => {
          onClose();
          void navigate(`/parts/${part}`);
        },
      },
    );
  });
  if (jobs.length === 0) return <p className="text-lead">No repair is open that a part could be for.</p>;
  return (
    <form onSubmit={take} className="grid gap-4 md:grid-cols-2">
      {tell.isError && (
        <div className="md:col-span-2">
          <Trouble title="Not taken">
            <p>{tell.error.message}</p>
          </Trouble>
        </div>
      )}
      <SelectField
        id="arrived-job"
        label="For the repair"
        value={job?.id ?? ''}
        options={jobs.map(({ id, title }) => ({ value: id, label: title }))}
        onChange={(next) => {
          setJob(next);
          setPart('');
        }}
        autoFocus
      />
      <SelectField
        id="arrived-part"
        label="In place of"
        value={chosen?.id ?? ''}
        options={parts.map(({ id, name }) => ({ value: id, label: wanted.includes(id) ? `${name}, wanted` : name }))}
        onChange={setPart}
      />
      <Field label="From, and as what" hint="Harbour Parts, new" {...field('source')} maxLength={200} />
      <Field label="Variant or colour" {...field('variant')} maxLength={200} />
      <Field label="Arrived" type="date" {...field('arrived')} />
      <Field label="May go back for, days" inputMode="numeric" {...field('window_days')} />
      <Field label="Price, if wanted" {...field('price')} maxLength={200} />
      <Button weight="loud" type="submit" keyName="Enter" disabled={tell.isPending}>
        It is here
      </Button>
    </form>
  );
}
