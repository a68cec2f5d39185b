import { useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { Field } from '../../ui/field.tsx';
import { type Closing, submitted } from '../../ui/form.ts';
import { Panel } from '../../ui/panel.tsx';

interface WetDecisionPanelProps extends Closing {
  onDecision(board: 'keep' | 'replace', text: string): void;
}

/** After a wet device was washed, dried and tried: does its board stay? Recorded with what was found. */
export function WetDecisionPanel({ open, onClose, onDecision }: WetDecisionPanelProps) {
  const [board, setBoard] = useState<'keep' | 'replace'>('keep');
  const [text, setText] = useState('');
  return (
    <Panel
      title="Its board"
      said="Recorded with what was found and where; corrosion is marked on the drawing of the intake."
      open={open}
      onClose={onClose}
    >
      <form
        onSubmit={submitted(() => {
          if (!text.trim()) return;
          onDecision(board, text.trim());
          onClose();
        })}
        className="flex flex-col gap-4"
      >
        <Choice
          label="The board"
          value={board}
          onChange={setBoard}
          options={[
            { value: 'keep', label: 'it stays' },
            { value: 'replace', label: 'it is replaced' },
          ]}
        />
        <Field
          label="What was found"
          value={text}
          required
          autoFocus
          maxLength={2000}
          onChange={(event) => setText(event.target.value)}
        />
        <Button weight="loud" type="submit" keyName="Enter">
          That is decided
        </Button>
      </form>
    </Panel>
  );
}
