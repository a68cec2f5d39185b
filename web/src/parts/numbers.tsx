import { checkNumbers } from '@nibrel/core/identity';
import { useState } from 'react';
import type { PartLine } from '@nibrel/core/api';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { submitted } from '../ui/form.ts';
import type { PartSaid } from './tell-desk.ts';

const PLACES = ['label', 'tray', 'box', 'screen'];

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
      <div className="grid gap-x-4 sm:grid-cols-2">
        {PLACES.map((place) => (
          <Place
            key={`${place} ${valueAt(part, place)}`}
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
  const [typed, setTyped] = useState(known);
  const [check] = checkNumbers([{ place, value: typed }]).numbers;
  const isTyped = typed.trim() !== '';
  return (
    <form onSubmit={submitted(() => onValue(typed.trim()))} className="grid grid-cols-[1fr_auto] items-end gap-2 py-1">
      <Field
        id={`number-${place}`}
        label={`On the ${place}`}
        inputMode="numeric"
        autoComplete="off"
        value={typed}
        maxLength={40}
        problem={isTyped && !check!.valid ? check!.reason : ''}
        hint={
          isTyped && check!.valid
            ? `valid, ${check!.kind === 'imei' ? '15 digits' : '16 digits, no check digit'}`
            : undefined
        }
        onChange={(event) => setTyped(event.target.value)}
      />
      {typed.trim() !== known && <Button type="submit">Note</Button>}
    </form>
  );
}
