import Joi from 'joi';
import type { EventData } from '@nibrel/core/job/events';
import { Button } from '../ui/button.tsx';
import { Caution } from '../ui/caution.tsx';
import { Choice } from '../ui/choice.tsx';
import { Field } from '../ui/field.tsx';
import type { Closing } from '../ui/form.ts';
import { Panel } from '../ui/panel.tsx';
import { note, picked } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const schema = Joi.object<EventData['wet']>({ indicator: picked(), text: note() });

interface WetPanelProps extends Closing {
  onWet(wet: EventData['wet']): void;
}

/** A wet device has its own way in. */
export function WetPanel({ open, onClose, onWet }: WetPanelProps) {
  const { field, pick, sent } = useFields(schema, { indicator: 'tripped' as EventData['wet']['indicator'], text: '' });
  return (
    <Panel
      title="Liquid damage"
      said="Battery off at once, then washed, dried and tried. Whether the board is replaced is decided after that."
      open={open}
      onClose={onClose}
    >
      <form
        onSubmit={sent((wet) => {
          onWet(wet);
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
          {...pick('indicator')}
          options={[
            { value: 'tripped', label: 'indicator has turned' },
            { value: 'clear', label: 'indicator is clear' },
            { value: 'not-seen', label: 'not seen yet' },
          ]}
        />
        <Field label="What, and when" {...field('text')} maxLength={2000} />
        <Button weight="loud" type="submit" keyName="Enter">
          Battery off first
        </Button>
      </form>
    </Panel>
  );
}
