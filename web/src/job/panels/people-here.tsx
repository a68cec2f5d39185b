import { isSameName } from '@nibrel/core/model/names';
import { type Role, ROLES } from '@nibrel/core/workshop/shop';
import Joi from 'joi';
import type { Person } from '@nibrel/core/api';
import { useSettings } from '../../app/settings.ts';
import { NotTold } from '../../kit/not-told.tsx';
import { useTellShop } from '../../kit/tell-shop.ts';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { Field } from '../../ui/field.tsx';
import { picked, properName } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';

const schema = Joi.object<{ name: string; role: Role }>({ name: properName('A name'), role: picked() });

/** The people of the workshop and their roles: seen by everybody, changed by a lead. */
export function PeopleHere({ people }: { readonly people: readonly Person[] }) {
  const person = useSettings((settings) => settings.person);
  const tell = useTellShop();
  const { field, pick, sent, setValue } = useFields(schema, { name: '', role: 'technician' as Role });
  const isLead = people.some((each) => isSameName(each.name, person) && each.role === 'lead');
  const say = (of: string, as: Role | null) => tell.mutate({ type: 'person', data: { name: of, role: as } });
  return (
    <section aria-label="Who works here" className="flex flex-col gap-2">
      <NotTold error={tell.error} />
      <ul>
        {people.map((each) => (
          <li
            key={each.name}
            className="flex min-h-12 flex-wrap items-center justify-between gap-3 border-b border-hair"
          >
            <span className="text-body font-bold">{each.name}</span>
            {isLead ? (
              <span className="flex items-center gap-2">
                <Choice
                  label={`${each.name} is`}
                  value={each.role}
                  onChange={(next) => say(each.name, next)}
                  options={ROLES}
                />
                <Button weight="quiet" onClick={() => say(each.name, null)}>
                  Has left
                </Button>
              </span>
            ) : (
              <span className="text-body text-quiet">{each.role}</span>
            )}
          </li>
        ))}
      </ul>
      {isLead ? (
        <form
          onSubmit={sent(({ name, role }) => {
            say(name, role);
            setValue('name', '');
          })}
          className="flex flex-wrap items-end gap-3"
        >
          <div className="grow">
            <Field label="Somebody new" {...field('name')} maxLength={60} />
          </div>
          <Choice label="As" {...pick('role')} options={ROLES} />
          <Button type="submit">Put on the list</Button>
        </form>
      ) : (
        <p className="text-note text-quiet">A lead changes this list. Who is not on it works as a technician.</p>
      )}
    </section>
  );
}
