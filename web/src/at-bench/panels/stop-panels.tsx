import type { EventData } from '@nibrel/core/bench';
import { useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Caution } from '../../ui/caution.tsx';
import { Field } from '../../ui/field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/select-field.tsx';
import { type Closing, submitted } from './form.ts';

interface StopPanelProps extends Closing {
  onStop(stop: EventData['stop']): void;
}

const STOPS: Readonly<Record<EventData['stop']['reason'], string>> = {
  smoke: 'Smoke',
  swelling: 'The cell swells',
  smell: 'Sweet or burnt smell',
  leak: 'Something leaks',
  heat: 'It gets hot by itself',
  other: 'Something else',
};

const REASONS = Object.keys(STOPS) as EventData['stop']['reason'][];

/** From any moment: what is safe first, then it is isolated and handed to the lead. */
export function StopPanel({ open, onClose, onStop }: StopPanelProps) {
  const [reason, setReason] = useState<EventData['stop']['reason']>('smoke');
  const [text, setText] = useState('');
  return (
    <Panel title="Stop now" open={open} onClose={onClose}>
      <form
        onSubmit={submitted(() => {
          onStop({ reason, text: text.trim() });
          onClose();
        })}
        className="flex flex-col gap-4"
      >
        <Caution>
          Hands off the cell. Heat and charger off. If it can be moved safely, into the sand, outdoors, away from what
          burns; if it smokes, leave it and leave the room. Fire service and local rules come before this screen.
        </Caution>
        <SelectField
          id="stop-reason"
          label="What is it"
          value={reason}
          options={REASONS.map((each) => ({ value: each, label: STOPS[each] }))}
          onChange={setReason}
          autoFocus
        />
        <Field label="Note" value={text} onChange={(event) => setText(event.target.value)} maxLength={2000} />
        <Button weight="loud" type="submit" keyName="Enter">
          Stop this repair
        </Button>
      </form>
    </Panel>
  );
}

export function ClearPanel({ open, onClose, onClear }: Closing & { onClear(text: string): void }) {
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  return (
    <Panel
      title="The lead clears it"
      said="Say who decided, and why it is safe to go on."
      open={open}
      onClose={onClose}
    >
      <form
        onSubmit={submitted(() => {
          if (!name.trim() || !text.trim()) return;
          onClear(`${name.trim()}: ${text.trim()}`);
          onClose();
        })}
        className="flex flex-col gap-4"
      >
        <Field
          label="Lead"
          value={name}
          onChange={(event) => setName(event.target.value)}
          required
          autoFocus
          maxLength={60}
        />
        <Field
          label="Reason"
          value={text}
          onChange={(event) => setText(event.target.value)}
          required
          maxLength={1000}
        />
        <Button weight="loud" type="submit" keyName="Enter">
          Clear it
        </Button>
      </form>
    </Panel>
  );
}
