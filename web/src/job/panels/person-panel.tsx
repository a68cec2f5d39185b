import { useQuery } from '@tanstack/react-query';
import Joi from 'joi';
import { useState } from 'react';
import { shopQuery } from '../../app/queries.ts';
import { useSettings } from '../../app/settings.ts';
import { NotTold } from '../../kit/not-told.tsx';
import { useTellShop } from '../../kit/tell-shop.ts';
import { Button } from '../../ui/button.tsx';
import { Field } from '../../ui/field.tsx';
import type { Closing } from '../../ui/form.ts';
import { Panel } from '../../ui/panel.tsx';
import { properName } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';
import { PeopleHere } from './people-here.tsx';

const schema = Joi.object<{ name: string }>({ name: properName('Your name') });

/** Who is at the bench: picked once, goes into every event. A workshop without a lead is asked for one first. */
export function PersonPanel({ open, onClose }: Closing) {
  const { person, people: before, setPerson } = useSettings();
  const shop = useQuery(shopQuery).data;
  const tell = useTellShop();
  const { field, sent } = useFields(schema, { name: person });
  const [shown, setShown] = useState(false);
  const people = shop?.people ?? [];
  const needsLead = shop !== undefined && !people.some(({ role }) => role === 'lead');
  const known = [
    ...people.map((each) => each.name),
    ...before.filter((each) => !people.some((one) => one.name === each)),
  ];
  const pick = (picked: string) => {
    setPerson(picked);
    onClose();
  };
  const lead = sent(({ name }) => {
    setPerson(name);
    tell.mutate({ type: 'person', data: { name, role: 'lead' } });
  });
  return (
    <Panel
      title="Who is at the bench"
      said={
        needsLead
          ? 'Nobody leads this workshop yet. The lead clears what was stopped and sets the limits: name one first.'
          : 'Asked once. The name goes into everything that is recorded here.'
      }
      open={open}
      onClose={onClose}
    >
      <NotTold error={tell.error} />
      <form onSubmit={sent(({ name }) => pick(name))} className="flex flex-col gap-4">
        <Field label="Name" {...field('name')} autoFocus maxLength={60} />
        {known.length > 0 && (
          <div className="flex flex-wrap gap-2">
            {known.map((each) => (
              <Button key={each} onClick={() => pick(each)}>
                {each}
              </Button>
            ))}
          </div>
        )}
        <Button weight="loud" type="submit" keyName="Enter">
          That is me
        </Button>
        {needsLead && <Button onClick={() => void lead()}>That is me, and I lead this workshop</Button>}
      </form>
      {people.length > 0 && (
        <div className="mt-5 border-t border-hair pt-3">
          {shown ? (
            <PeopleHere people={people} />
          ) : (
            <Button weight="quiet" onClick={() => setShown(true)}>
              Who works here, and as what
            </Button>
          )}
        </div>
      )}
    </Panel>
  );
}
