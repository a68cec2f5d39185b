import { type EventData, STOP_REASONS, type StopReason } from '@nibrel/core/bench';
import { useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Caution } from '../../ui/caution.tsx';
import { Field } from '../../ui/field.tsx';
import { type Closing, submitted } from '../../ui/form.ts';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/select-field.tsx';

const STOPS: Readonly<Record<StopReason, string>> = {
  swelling: 'The cell swells',
  smoke: 'Smoke',
  smell: 'Sweet or burnt smell',
  leak: 'Something leaks',
  puncture: 'A cell is punctured or cut',
  dent: 'A cell is dented',
  burnt: 'Something is burnt or melted',
  heat: 'It gets hot by itself',
  other: 'Something else',
};

interface StopPanelProps extends Closing {
  readonly first?: StopReason;
  onStop(stop: EventData['stop']): void;
}

/** From any moment: what is safe first, then it is isolated and handed to the lead. */
export function StopPanel({ open, onClose, first = 'smoke', onStop }: StopPanelProps) {
  const [reason, setReason] = useState<StopReason>(first);
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
          options={STOP_REASONS.map((each) => ({ value: each, label: STOPS[each] }))}
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

interface LeadPanelProps extends Closing {
  onClear(clear: EventData['clear']): void;
  onEnd(end: EventData['end']): void;
}

/** The lead clears a stop, or ends the job where it stands; either with a reason. */
export function LeadPanel({ open, onClose, onClear, onEnd }: LeadPanelProps) {
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  const decided = { lead: name.trim(), text: text.trim() };
  const isSaid = decided.lead !== '' && decided.text !== '';
  const decide = (act: () => void) => {
    if (!isSaid) return;
    act();
    onClose();
  };
  return (
    <Panel
      title="The lead decides"
      said="Say who decided, and why it is safe to go on, or why it ends here."
      open={open}
      onClose={onClose}
    >
      <form onSubmit={submitted(() => decide(() => onClear(decided)))} className="flex flex-col gap-4">
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
          Clear it, the repair goes on
        </Button>
        <Button disabled={!isSaid} onClick={() => decide(() => onEnd(decided))}>
          End it here
        </Button>
      </form>
    </Panel>
  );
}
