import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { SideBySide } from '@nibrel/core/bench/in-hand';
import { capital, thingName } from '@nibrel/core/planner/words';
import Joi from 'joi';
import { useState } from 'react';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface NoPlaceProps {
  readonly map: DeviceMap;
  readonly beside: SideBySide;
  onNoPlace(joint: string, text: string): void;
}

const schema = Joi.object<{ text: string }>({ text: words('What becomes of it', 2000) });

/** A hole or socket of the old part that the new one does not have: decided with its reason, before it goes in. */
export function NoPlace({ map, beside, onNoPlace }: NoPlaceProps) {
  const [joint, setJoint] = useState('');
  const { field, sent } = useFields(schema, { text: '' });
  if (beside.places.length === 0) return null;
  return (
    <form
      aria-label="No counterpart"
      className="flex flex-wrap items-end gap-2"
      onSubmit={sent(({ text }) => {
        if (joint) onNoPlace(joint, text);
      })}
    >
      <SelectField
        id="no-place"
        label="The new one has no place for"
        value={joint}
        onChange={setJoint}
        options={[
          { value: '', label: 'all of it has its place' },
          ...beside.places.map((id) => ({
            value: id,
            label: capital(thingName(map, id)),
          })),
        ]}
      />
      {joint && (
        <>
          <Field label="What becomes of it" {...field('text')} maxLength={2000} />
          <Button type="submit">That is decided</Button>
        </>
      )}
    </form>
  );
}
