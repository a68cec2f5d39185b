import { shopQuery } from '../app/queries.ts';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { PartLine } from '@nibrel/core/api';
import { useKeys } from '../app/keys.ts';

import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import type { PartSaid } from './tell-desk.ts';

interface DecidingProps {
  readonly part: PartLine;
  onSaid(said: PartSaid): void;
}

/** Accepted, held, or sent back. What the verdict does not allow needs a name and a reason. */
export function Deciding({ part, onSaid }: DecidingProps) {
  const today = useQuery(shopQuery).data?.today;
  const [text, setText] = useState('');
  const decide = (decision: 'accept' | 'accept-anyway' | 'hold' | 'send-back') => {
    onSaid({ type: 'part-decided', data: { part: part.id, decision, text: text.trim() } });
    setText('');
  };
  const gone = () =>
    today && onSaid({ type: 'part-sent-back', data: { part: part.id, date: today, text: text.trim() } });
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
        <Field
          label={usable ? 'Note' : 'Who decides, and why'}
          value={text}
          maxLength={1000}
          onChange={(event) => setText(event.target.value)}
        />
      </div>
      {!usable && !part.accepted && (
        <Button disabled={!text.trim()} onClick={() => decide('accept-anyway')}>
          Use it all the same
        </Button>
      )}
    </section>
  );
}
