import { type Answer, NOTHING_ASKED, type Question, withKeys } from '@nibrel/core/asking/question';
import type { BenchEvent } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { bareMap } from '@nibrel/core/teardown/record';
import { UNNAMED } from '@nibrel/core/workshop/shop';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import Joi from 'joi';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api } from '../app/client.ts';
import { decimal } from '../app/format.ts';
import { mapsQuery } from '../app/queries.ts';
import { useSettings } from '../app/settings.ts';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { AnswerBar } from '../frame/answer-bar.tsx';
import { Asked } from '../frame/asked.tsx';
import { Frame } from '../frame/frame.tsx';
import { useAnswers } from '../frame/use-answers.ts';
import { Waiting } from '../outbox/waiting.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Choice } from '../ui/choice.tsx';
import { Field } from '../ui/field.tsx';
import { note, words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface Unmapped {
  readonly name: string;
  readonly title: string;
  readonly owner: string;
  readonly serial: string;
  readonly width: string;
  readonly height: string;
  readonly thickness: string;
}

/** A measure that may be left out, mm. */
const size = () =>
  Joi.string()
    .trim()
    .allow('')
    .custom((value: string, helpers) => {
      const found = decimal(value);
      return value === '' || (found !== null && found > 0 && found <= 1000) ? value : helpers.error('size.none');
    })
    .messages({ 'size.none': 'In millimetres, up to 1000, or left out.' });

const schema = Joi.object<Unmapped>({
  name: words('Give it a name that your workshop will know it by.', 120),
  title: note(120),
  owner: note(120),
  serial: note(120),
  width: size(),
  height: size(),
  thickness: size(),
});

const KINDS: readonly { readonly value: DeviceMap['kind']; readonly label: string }[] = [
  { value: 'phone', label: 'phone' },
  { value: 'tablet', label: 'tablet' },
  { value: 'keypad-phone', label: 'keypad phone' },
  { value: 'other', label: 'something else' },
];

const NOTHING: Unmapped = { name: '', title: '', owner: '', serial: '', width: '', height: '', thickness: '' };

/** A device without a map is taken in to be taken apart: a name is enough. */
export function UnmappedView() {
  const maps = useQuery(mapsQuery).data ?? [];
  const person = useSettings((settings) => settings.person);
  const [kind, setKind] = useState<DeviceMap['kind']>('phone');
  const { field, sent } = useFields(schema, NOTHING);
  const [problem, setProblem] = useState<string | null>(null);
  // a map that was stored before its job was refused is used by the next try
  const [stored, setStored] = useState<string | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const drawn = useMemo(() => bareMap({ id: 'unmapped', name: 'Unmapped', kind, hasCell: kind !== 'other' }), [kind]);

  const takeIn = sent(async ({ name, width, height, thickness, ...owner }) => {
    try {
      const outline = Object.fromEntries(
        Object.entries({ width, height, thickness }).flatMap(([key, value]) =>
          value === '' ? [] : [[key, decimal(value)!]],
        ),
      );
      const id = stored ?? freeSlug(name, new Set(maps.map((each) => each.id)));
      if (stored === null) await api.addMap(bareMap({ id, name, kind, outline, hasCell: kind !== 'other' }));
      setStored(id);
      const job = await api.addJob({ map: id, targets: [{ full: true }], ...owner });
      const begun = {
        id: crypto.randomUUID(),
        type: 'take-apart',
        at: new Date().toISOString(),
        by: person || UNNAMED,
        data: {},
      };
      const { rejected } = await api.append(job.id, [begun as BenchEvent]);
      if (rejected[0]) throw new Error(rejected[0].problem);
      await queries.invalidateQueries();
      void navigate(`/jobs/${job.id}/intake`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  });

  useAnswers(QUESTION.answers, () => void takeIn());
  const answer = ({ notNow }: Answer) => notNow === undefined && void takeIn();
  return (
    <Frame
      askedId={QUESTION.id}
      head={
        <header className="flex items-baseline gap-x-6 border-b border-ink px-6 py-3">
          <p className="text-lead leading-tight font-bold">
            <Link to="/" aria-label="Bench" className="mr-2 no-underline">
              ‹
            </Link>
            A device without a map
          </p>
        </header>
      }
      asked={
        <>
          <Waiting />
          {problem && <Trouble title={problem} />}
          <Asked question={QUESTION} name="Unmapped device">
            <form className="grid grid-cols-2 gap-x-4 gap-y-3" onSubmit={takeIn}>
              <div className="col-span-2">
                <Field label="What it is called" {...field('name')} maxLength={120} autoFocus />
              </div>
              <div className="col-span-2">
                <Choice label="Kind" value={kind} onChange={setKind} options={KINDS} />
              </div>
              <div className="col-span-2 grid grid-cols-3 gap-x-4">
                <Field
                  label="Width, mm"
                  {...field('width')}
                  inputMode="decimal"
                  placeholder={String(drawn.outline.width)}
                />
                <Field
                  label="Height, mm"
                  {...field('height')}
                  inputMode="decimal"
                  placeholder={String(drawn.outline.height)}
                />
                <Field
                  label="Thickness, mm"
                  {...field('thickness')}
                  inputMode="decimal"
                  placeholder={String(drawn.outline.thickness)}
                />
              </div>
              <Field label="Job number" {...field('title')} maxLength={120} />
              <Field label="Owner" {...field('owner')} maxLength={120} />
              <Field label="Serial" {...field('serial')} maxLength={120} />
              <button type="submit" hidden aria-hidden="true" tabIndex={-1} />
            </form>
          </Asked>
        </>
      }
      where={
        <div className="h-[48dvh] p-6 md:h-full">
          <DeviceDrawing map={drawn} side="front" label="Its outline" gone={NONE} />
        </div>
      }
      bar={<AnswerBar answers={QUESTION.answers} always={[]} onGive={answer} />}
    />
  );
}

const NONE: ReadonlySet<string> = new Set();

const QUESTION: Question = {
  ...NOTHING_ASKED,
  id: 'unmapped',
  place: 'New repair · no map yet',
  title: 'Which device is it?',
  hint: 'Its first teardown becomes its map. What you do not know may stay empty.',
  answers: withKeys([{ id: 'take-apart', label: 'I take it apart', weight: 'main', gives: { kind: 'nothing' } }]),
};

/** *kittiwake-lite*, or *kittiwake-lite-2* where that is taken. */
function freeSlug(name: string, taken: ReadonlySet<string>): string {
  const plain = name
    .normalize('NFKD')
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-+|-+$/g, '')
    .slice(0, 56);
  const slug = plain === '' ? 'device' : plain;
  for (let n = 1; ; n++) {
    const id = n === 1 ? slug : `${slug}-${n}`;
    if (!taken.has(id)) return id;
  }
}
