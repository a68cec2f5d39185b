import { mapQuery, openJobsQuery, shopQuery } from '../app/queries.ts';
import { calendarDate } from '@nibrel/core/calendar';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';

import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Field } from '../ui/field.tsx';
import { type Closing, submitted } from '../ui/form.ts';
import { Panel } from '../ui/panel.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { useTellDesk } from './tell-desk.ts';

/** A part as it arrives: for which repair and which part of the device, where from, and how long it may go back. */
export function ArrivePanel({ open, onClose }: Closing) {
  return (
    <Panel title="A part arrived" said="Then it is looked at, and decided on." open={open} onClose={onClose}>
      {open && <Arrival onClose={onClose} />}
    </Panel>
  );
}

function Arrival({ onClose }: { onClose(): void }) {
  const navigate = useNavigate();
  const jobs = useQuery(openJobsQuery).data ?? [];
  const shop = useQuery(shopQuery).data;
  const [jobId, setJob] = useState('');
  const job = jobs.find((each) => each.id === jobId) ?? jobs[0];
  const map = useQuery(mapQuery(job?.map, job?.mapRevision)).data;
  const wanted = job?.targets.flatMap((each) => ('replace' in each ? [each.replace] : [])) ?? [];
  const parts = (map?.parts ?? [])
    .filter((each) => !each.base)
    .toSorted((a, b) => Number(wanted.includes(b.id)) - Number(wanted.includes(a.id)));
  const [mapPart, setPart] = useState('');
  const [form, setForm] = useState({ source: '', arrived: '', window: '', price: '', variant: '' });
  const arrived = form.arrived || shop?.today || '';
  const window = form.window || String(shop?.limits.returnWindow_days ?? 30);
  const tell = useTellDesk(job?.id ?? '');
  const chosen = parts.find((each) => each.id === mapPart) ?? parts[0];
  const windowProblem =
    /^\d{1,4}$/.test(window.trim()) && Number(window) <= 3650 ? '' : 'Days, 0 or more; 0 where it can not go back';
  const dateProblem = calendarDate.validate(arrived).error ? 'A date' : '';
  const field = (name: keyof typeof form) => ({
    onChange: (event: { target: { value: string } }) => setForm({ ...form, [name]: event.target.value }),
    maxLength: 200,
  });
  const take = () => {
    if (!job || !chosen || windowProblem || dateProblem || !form.source.trim()) return;
    const part = crypto.randomUUID();
    const data = {
      part,
      mapPart: chosen.id,
      source: form.source.trim(),
      arrived,
      window_days: Number(window),
      ...(form.price.trim() ? { price: form.price.trim() } : {}),
      ...(form.variant.trim() ? { variant: form.variant.trim() } : {}),
    };
    tell.mutate(
      { type: 'part-arrived', data },
      {
        onSuccess: () => {
          onClose();
          void navigate(`/parts/${part}`);
        },
      },
    );
  };
  if (jobs.length === 0) return <p className="text-lead">No repair is open that a part could be for.</p>;
  return (
    <form onSubmit={submitted(take)} className="grid gap-4 md:grid-cols-2">
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
      <Field label="From, and as what" hint="Harbour Parts, new" value={form.source} required {...field('source')} />
      <Field label="Variant or colour" value={form.variant} {...field('variant')} />
      <Field label="Arrived" type="date" value={arrived} problem={dateProblem} {...field('arrived')} />
      <Field
        label="May go back for, days"
        inputMode="numeric"
        value={window}
        problem={windowProblem}
        {...field('window')}
      />
      <Field label="Price, if wanted" value={form.price} {...field('price')} />
      <Button weight="loud" type="submit" keyName="Enter" disabled={tell.isPending}>
        It is here
      </Button>
    </form>
  );
}
