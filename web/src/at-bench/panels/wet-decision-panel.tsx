import Joi from 'joi';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { Field } from '../../ui/field.tsx';
import type { Closing } from '../../ui/form.ts';
import { Panel } from '../../ui/panel.tsx';
import { picked, words } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';

interface Decided {
  readonly board: 'keep' | 'replace';
  readonly text: string;
}

const schema = Joi.object<Decided>({ board: picked(), text: words('What was found, and where', 2000) });

interface WetDecisionPanelProps extends Closing {
  onDecision(board: 'keep' | 'replace', text: string): void;
}

/** After a wet device was washed, dried and tried: does its board stay? Recorded with what was found. */
export function WetDecisionPanel({ open, onClose, onDecision }: WetDecisionPanelProps) {
  const { field, pick, sent } = useFields(schema, { board: 'keep' as Decided['board'], text: '' });
  return (
    <Panel
      title="Its board"
      said="Recorded with what was found and where; corrosion is marked on the drawing of the intake."
      open={open}
      onClose={onClose}
    >
      <form
        onSubmit={sent(({ board, text }) => {
          onDecision(board, text);
          onClose();
        })}
        className="flex flex-col gap-4"
      >
        <Choice
          label="The board"
          {...pick('board')}
          options={[
            { value: 'keep', label: 'it stays' },
            { value: 'replace', label: 'it is replaced' },
          ]}
        />
        <Field label="What was found" {...field('text')} autoFocus maxLength={2000} />
        <Button weight="loud" type="submit" keyName="Enter">
          That is decided
        </Button>
      </form>
    </Panel>
  );
}
