import { partById } from '@nibrel/core/model/device-map';
import Joi from 'joi';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { comparePieces, type PartCondition, placesOn } from '@nibrel/core/workshop/parts';
import { thingName } from '@nibrel/core/planner/words';
import { useState } from 'react';
import type { PartLine } from '@nibrel/core/api';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { Field } from '../ui/field.tsx';
import type { PartSaid } from './tell-desk.ts';
import { note, picked } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const schema = Joi.object<{ condition: PartCondition; text: string }>({ condition: picked(), text: note(1000) });

interface LookedAtProps {
  readonly mechanism: Mechanism;
  readonly part: PartLine;
  onSaid(said: PartSaid): void;
}

/** Old and new side by side: what came with the new one, what moves over, and what it has no place for. */
export function LookedAt({ mechanism, part, onSaid }: LookedAtProps) {
  const { looked } = part;
  const { hazards = [] } = partById(mechanism.map, part.mapPart) ?? {};
  const [includes, setIncludes] = useState<ReadonlySet<string>>(new Set(looked?.includes));
  const [lacks, setLacks] = useState<ReadonlySet<string>>(new Set(looked?.lacks));
  const { field, pick, sent } = useFields(schema, { condition: looked?.condition ?? 'good', text: looked?.text ?? '' });
  const pieces = comparePieces(mechanism, part.mapPart, []);
  const carried = [...pieces.movesOver, ...pieces.renewed];
  const places = placesOn(mechanism, part.mapPart);
  const flip = (set: ReadonlySet<string>, id: string) =>
    set.has(id) ? new Set([...set].filter((each) => each !== id)) : new Set([...set, id]);
  const look = sent((said) =>
    onSaid({ type: 'part-looked', data: { part: part.id, includes: [...includes], lacks: [...lacks], ...said } }),
  );
  return (
    <form aria-label="Looked at" onSubmit={look} className="flex flex-col gap-3 border-t border-hair pt-4">
      <h2 className="text-lead font-bold">Old and new side by side</h2>
      <div className="flex flex-wrap items-end gap-4">
        <Choice
          label="Condition"
          {...pick('condition')}
          options={[
            { value: 'good', label: 'whole, the right one' },
            { value: 'damaged', label: 'damaged' },
            { value: 'wrong', label: 'wrong variant or colour' },
          ]}
        />
        <div className="min-w-60 grow">
          <Field label="Note" {...field('text')} maxLength={1000} />
        </div>
        {hazards.includes('lithium') && (
          <p className="w-full text-body">No dent, no swelling, its wrap whole: else it is damaged, and lies apart.</p>
        )}
        <Button weight={looked ? 'plain' : 'loud'} type="submit">
          {looked ? 'Note it anew' : 'Looked at'}
        </Button>
      </div>
      {carried.length > 0 && (
        <fieldset>
          <legend className="text-note text-quiet">The old one carries. Press what came with the new one.</legend>
          <ul className="grid gap-x-6 md:grid-cols-2">
            {carried.map((each) => (
              <Toggle
                key={each.id}
                label={each.name}
                on={includes.has(each.id)}
                said={
                  includes.has(each.id)
                    ? 'came with it'
                    : each.reuse === 'single-use'
                      ? 'new piece needed'
                      : 'moves over'
                }
                onFlip={() => setIncludes(flip(includes, each.id))}
              />
            ))}
          </ul>
        </fieldset>
      )}
      {places.length > 0 && (
        <details>
          <summary className="min-h-12 cursor-pointer py-3 text-body">
            Holes and sockets{lacks.size > 0 ? `, ${lacks.size} without a counterpart` : ''}
          </summary>
          <ul className="grid gap-x-6 md:grid-cols-2">
            {places.map((each) => (
              <Toggle
                key={each.id}
                label={thingName(mechanism.map, each.id)}
                on={!lacks.has(each.id)}
                said={lacks.has(each.id) ? 'no place for it: left over' : 'has its place'}
                onFlip={() => setLacks(flip(lacks, each.id))}
              />
            ))}
          </ul>
        </details>
      )}
    </form>
  );
}

function Toggle({ label, on, said, onFlip }: { label: string; on: boolean; said: string; onFlip(): void }) {
  return (
    <li className="border-b border-hair">
      <button
        type="button"
        aria-pressed={on}
        onClick={onFlip}
        className="flex min-h-12 w-full items-center justify-between gap-4 text-left"
      >
        <span className="text-body">
          <span aria-hidden="true" className={`mr-2 ${on ? 'text-done' : 'text-now'}`}>
            {on ? '✓' : '→'}
          </span>
          {label}
        </span>
        <span className={`text-note ${on ? 'text-done' : 'text-quiet'}`}>{said}</span>
      </button>
    </li>
  );
}
