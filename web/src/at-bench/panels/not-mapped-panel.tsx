import { jointById } from '@nibrel/core/model/device-map';
import Joi from 'joi';
import type { EventData } from '@nibrel/core/job/events';
import type { Op } from '@nibrel/core/planner/drafts';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { thingName } from '@nibrel/core/planner/words';
import { useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { Field } from '../../ui/field.tsx';
import type { Closing } from '../../ui/form.ts';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/select-field.tsx';
import { note, words } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';

type NotMapped = EventData['not-mapped'];

const FOLLOWS: Readonly<Record<NotMapped['what'], string>> = {
  missing: 'It counts as off, and nothing of it is put back. What would lie on it is taken as missing too.',
  different: 'It is looked at closely where it comes off, or at once where it stays.',
  extra: 'It comes off before the step in hand and goes back straight after that is made again.',
};

const schema = Joi.object<{ name: string; text: string }>({ name: note(), text: note() });
const named = Joi.object<{ name: string; text: string }>({
  name: words('What it is, as it is called at the bench'),
  text: note(),
});

interface NotMappedPanelProps extends Closing {
  readonly mechanism: Mechanism;
  readonly op: Op | undefined;
  /** @returns was it taken? What was written stays until it is. */
  onFound(found: NotMapped): Promise<boolean>;
  onTrouble(): void;
}

/** This device is not as its map says: recorded, proposed as a correction, and the plan changes. */
export function NotMappedPanel({ mechanism, op, open, onClose, onFound, onTrouble }: NotMappedPanelProps) {
  const { map } = mechanism;
  const [what, setWhat] = useState<NotMapped['what']>('missing');
  const [chosen, setChosen] = useState('');
  const { field, sent, empty } = useFields(what === 'extra' ? named : schema, { name: '', text: '' });
  const held = jointById(map, op?.joint)?.holds[0];
  const part = chosen || op?.part || held || map.parts.find((each) => !each.base)!.id;
  const over = op?.joint ? { joint: op.joint } : { part: op?.part ?? part };
  const report = sent(async ({ name, text }) => {
    const taken = await onFound(what === 'extra' ? { what, name, over, text } : { what, part, text });
    if (taken) empty();
    onClose();
  });
  return (
    <Panel
      title="Not as mapped"
      said="It is recorded, proposed as a correction of the map, and the plan follows."
      open={open}
      onClose={onClose}
    >
      <form onSubmit={report} className="flex flex-col gap-4">
        <Choice
          label="What is not as mapped"
          value={what}
          options={[
            { value: 'missing', label: 'it is not there' },
            { value: 'different', label: 'it is another one' },
            { value: 'extra', label: 'there is one more' },
          ]}
          onChange={setWhat}
        />
        <p className="text-body text-quiet">{FOLLOWS[what]}</p>
        {what === 'extra' ? (
          <>
            <Field label="What is it" {...field('name')} maxLength={200} />
            <p className="text-body text-quiet">It lies over {thingName(map, over.joint ?? over.part!)}.</p>
          </>
        ) : (
          <SelectField
            id="not-mapped-part"
            label="Part"
            value={part}
            options={map.parts.filter((each) => !each.base).map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setChosen}
          />
        )}
        <Field label="Note" {...field('text')} maxLength={2000} />
        <Button weight="loud" type="submit" keyName="Enter">
          Record it
        </Button>
        <Button onClick={onTrouble}>No place for this screw, or another one: trouble</Button>
      </form>
    </Panel>
  );
}
