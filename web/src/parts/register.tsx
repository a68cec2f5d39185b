import { shopQuery } from '../app/queries.ts';
import { checkNumbers, REGISTRY_ANSWERS, type RegistryAnswer } from '@nibrel/core/model/identity';
import { useMutation, useQuery } from '@tanstack/react-query';
import Joi from 'joi';
import type { PartLine } from '@nibrel/core/api';
import { api } from '../app/client.ts';
import { clock, day } from '../app/format.ts';

import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Field } from '../ui/field.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { picked, words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';
import type { PartSaid } from './tell-desk.ts';

const WORDS: Readonly<Record<RegistryAnswer, string>> = {
  clear: 'clear',
  barred: 'barred by a network',
  locked: 'locked to an account or network',
  unknown: 'unknown there',
  'not-reachable': 'not reachable',
};

/** Longer than this nobody waits for a register. */
const PATIENCE_MS = 8000;

const schema = Joi.object<{ answer: RegistryAnswer; where: string }>({
  answer: picked(),
  where: words('Where it was asked', 200),
});

interface RegisterProps {
  readonly part: PartLine;
  onSaid(said: PartSaid): void;
}

/** What a register answers: typed in, with where and when it was asked; in the demonstration a stand-in can be asked. */
export function Register({ part, onSaid }: RegisterProps) {
  const shop = useQuery(shopQuery).data;
  const { field, pick, sent, setValue } = useFields(schema, { answer: 'clear' as RegistryAnswer, where: '' });
  const number = part.numbers.find((each) => checkNumbers([each]).numbers[0]!.valid)?.value ?? '';
  const said = (data: { answer: RegistryAnswer; where: string; at: string; simulated: boolean }) =>
    onSaid({ type: 'part-asked', data: { part: part.id, number, ...data } });
  const ask = useMutation({
    mutationFn: () => api.askRegistry(number, AbortSignal.timeout(PATIENCE_MS)),
    onSuccess: ({ answer: told, at, where: there, simulated }) => said({ answer: told, at, where: there, simulated }),
  });
  const typed = sent(({ answer, where }) => {
    if (!number) return;
    said({ answer, where, at: new Date().toISOString(), simulated: false });
    setValue('where', '');
  });
  return (
    <section aria-label="Register">
      <h2 className="text-lead font-bold">Barred or locked</h2>
      <p className="text-note text-quiet">
        {number ? `Asked for ${number}.` : 'A valid number has to be read first.'} A bar or a lock is a reason to send
        it back; nothing here helps around one.
      </p>
      <form onSubmit={typed} className="grid grid-cols-2 items-end gap-2 py-1">
        <SelectField
          id="register-answer"
          label="It answers"
          {...pick('answer')}
          options={REGISTRY_ANSWERS.map((each) => ({ value: each, label: WORDS[each] }))}
        />
        <Field label="Asked where" {...field('where')} maxLength={200} />
        <Button type="submit" disabled={!number}>
          Note the answer
        </Button>
        {shop?.standIns && (
          <Button disabled={!number || ask.isPending} onClick={() => ask.mutate()}>
            {ask.isPending ? 'Asking' : 'Ask (simulated)'}
          </Button>
        )}
      </form>
      {ask.isError && (
        <Trouble title="No answer">
          <p>The register did not answer in {PATIENCE_MS / 1000} seconds. Ask again, or type in what another says.</p>
        </Trouble>
      )}
      <ul aria-label="Answers" className="mt-2 text-body">
        {part.asked.toReversed().map((each) => (
          <li key={`${each.at} ${each.answer} ${each.where}`} className="border-b border-hair py-1">
            <strong className={each.answer === 'barred' || each.answer === 'locked' ? 'text-now' : ''}>
              {WORDS[each.answer]}
            </strong>
            <span className="text-quiet">
              , {day(each.at)}, {clock(each.at)}, {each.where}
              {each.simulated && !each.where.includes('simulated') && ', simulated'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
