import Joi from 'joi';
import { shopQuery } from '../app/queries.ts';
import { useQuery } from '@tanstack/react-query';
import type { PartLine } from '@nibrel/core/api';
import { useKeys } from '../app/keys.ts';

import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import type { PartSaid } from './tell-desk.ts';
import { note } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const schema = Joi.object<{ text: string }>({ text: note(1000) });

interface DecidingProps {
  readonly part: PartLine;
  onSaid(said: PartSaid): void;
}

/** Accepted, held, or sent back. What the verdict does not allow needs a name and a reason. */
export function Deciding({ part, onSaid }: DecidingProps) {
  const today = useQuery(shopQuery).data?.today;
  const { field, typed, empty } = useFields(schema, { text: '' });
  const text = typed('text').trim();
  const decide = (decision: 'accept' | 'accept-anyway' | 'hold' | 'send-back') => {
    onSaid({ type: 'part-decided', data: { part: part.id, decision, text } });
    empty();
  };
  const gone = () => today && onSaid({ type: 'part-sent-back', data: { part: part.id, date: today, text } });
  const usable = part.verdict === 'use';
  const accept = () => usable && !part.accepted && decide('accept');
  useKeys({ ' ': accept });
  return (
    <section aria-label="Decision" className="flex flex-wrap items-end gap-3">
      {usable && !part.accepted && (
        <Button weight="loud" keyName="Space" data-step="" onClick={accept}>
          Accept it
        </Button>
      )}
      {part.verdict === 'send-back' && part.decision?.decision !== 'send-back' && !part.accepted && (
        <Button weight="loud" onClick={() => decide('send-back')}>
          It goes back
        </Button>
      )}
      {!part.accepted && part.decision?.decision !== 'hold' && <Button onClick={() => decide('hold')}>Hold it</Button>}
      {part.decision?.decision !== undefined && <Button onClick={gone}>Sent back today</Button>}
      <div className="min-w-64 grow">
        <Field label={usable ? 'Note' : 'Who decides, and why'} {...field('text')} maxLength={1000} />
      </div>
      {!usable && !part.accepted && (
        <Button disabled={!text} onClick={() => decide('accept-anyway')}>
          Use it all the same
        </Button>
      )}
    </section>
  );
}
