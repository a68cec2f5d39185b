import type { EventData } from '@nibrel/core/job';
import { useState } from 'react';
import { Button } from '../ui/button.tsx';
import { Caution } from '../ui/caution.tsx';
import { Choice } from '../ui/choice.tsx';
import { Field } from '../ui/field.tsx';
import { type Closing, submitted } from '../ui/form.ts';
import { Panel } from '../ui/panel.tsx';

interface WetPanelProps extends Closing {
  onWet(wet: EventData['wet']): void;
}

/** A wet device has its own way in. */
export function WetPanel({ open, onClose, onWet }: WetPanelProps) {
  const [indicator, setIndicator] = useState<EventData['wet']['indicator']>('tripped');
  const [text, setText] = useState('');
  return (
    <Panel
      title="It is wet"
      said="Battery off at once, then washed, dried and tried. Whether the board is replaced is decided after that."
      open={open}
      onClose={onClose}
    >
      <form
        onSubmit={submitted(() => {
          onWet({ indicator, text: text.trim() });
          onClose();
        })}
        className="flex flex-col gap-4"
      >
        <Caution>
          Not on a charger and not switched on: current through liquid eats a board in minutes and can heat a cell. A
          cell that got wet may fail later. Local rules decide.
        </Caution>
        <Choice
          label="Liquid indicator"
          value={indicator}
          onChange={setIndicator}
          options={[
            { value: 'tripped', label: 'indicator has turned' },
            { value: 'clear', label: 'indicator is clear' },
            { value: 'not-seen', label: 'not seen yet' },
          ]}
        />
        <Field label="What, and when" value={text} onChange={(event) => setText(event.target.value)} maxLength={2000} />
        <Button weight="loud" type="submit" keyName="Enter">
          Battery off first
        </Button>
      </form>
    </Panel>
  );
}
