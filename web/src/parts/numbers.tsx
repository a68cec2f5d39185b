import Joi from 'joi';
import { checkNumbers } from '@nibrel/core/model/identity';
import type { PartLine } from '@nibrel/core/api';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import type { PartSaid } from './tell-desk.ts';
import { Offered } from '../ui/offered.tsx';
import { note } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const PLACES = ['label', 'tray', 'box', 'screen'];

/** A number that can't be right is noted all the same: it is a reason to send the part back. */
const schema = Joi.object<{ value: string }>({ value: note(40) });

interface NumbersProps {
  readonly part: PartLine;
  onSaid(said: PartSaid): void;
}

/** A board's number as it stands in each place: its check digit at once, and whether they are the same. */
export function Numbers({ part, onSaid }: NumbersProps) {
  const { agree } = checkNumbers(part.numbers.length > 0 ? part.numbers : [{ place: '', value: '' }]);
  return (
    <section aria-label="Identity numbers">
      <h2 className="text-lead font-bold">Its number</h2>
      {part.numbers.length > 1 && (
        <p className={`text-body ${agree ? 'text-done' : 'font-bold text-now'}`}>
          {agree ? '✓ The same in all places' : '✕ Not the same in all places'}
        </p>
      )}
      <div className="grid grid-cols-[repeat(auto-fit,minmax(13rem,1fr))] gap-x-4">
        {PLACES.map((place) => (
          <Place
            key={place}
            place={place}
            known={valueAt(part, place)}
            onValue={(value) => onSaid({ type: 'part-number', data: { part: part.id, place, value } })}
          />
        ))}
      </div>
    </section>
  );
}

function valueAt(part: PartLine, place: string): string {
  return part.numbers.find((each) => each.place === place)?.value ?? '';
}

interface PlaceProps {
  readonly place: string;
  readonly known: string;
  onValue(value: string): void;
}

function Place({ place, known, onValue }: PlaceProps) {
  const { field, sent, typed, offered } = useFields(schema, { value: known });
  const value = typed('value');
  const [check] = checkNumbers([{ place, value }]).numbers;
  const isTyped = value.trim() !== '';
  return (
    <form onSubmit={sent((said) => onValue(said.value))} className="grid grid-cols-[1fr_auto] items-end gap-2 py-1">
      <Field
        id={`number-${place}`}
        label={`On the ${place}`}
        inputMode="numeric"
        autoComplete="off"
        {...field('value')}
        maxLength={40}
        problem={isTyped && !check!.valid ? check!.reason : ''}
        hint={
          isTyped && check!.valid
            ? `valid, ${check!.kind === 'imei' ? '15 digits' : '16 digits, no check digit'}`
            : undefined
        }
      />
      {value.trim() !== known && <Button type="submit">Note</Button>}
      {offered && <Offered said={known} onTake={offered.take} />}
    </form>
  );
}
