import { partById } from '@nibrel/core/model/device-map';
import Joi from 'joi';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { comparePieces, type PartCondition, placesOn } from '@nibrel/core/workshop/parts';
import { thingName } from '@nibrel/core/planner/words';
import type { PartLine } from '@nibrel/core/api';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { Field } from '../ui/field.tsx';
import type { PartSaid } from './tell-desk.ts';
import { Offered } from '../ui/offered.tsx';
import { note, picked } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface Looked {
  readonly condition: PartCondition;
  readonly text: string;
  /** ids of pieces that came with it, and of joints that it has no place for */
  readonly includes: readonly string[];
  readonly lacks: readonly string[];
}

const schema = Joi.object<Looked>({
  condition: picked(),
  text: note(1000),
  includes: Joi.array().items(Joi.string()),
  lacks: Joi.array().items(Joi.string()),
});

const CONDITIONS: Readonly<Record<PartCondition, string>> = {
  good: 'whole, the right one',
  damaged: 'damaged',
  wrong: 'wrong variant or colour',
};

interface LookedAtProps {
  readonly mechanism: Mechanism;
  readonly part: PartLine;
  onSaid(said: PartSaid): void;
}

/** Old and new side by side: what came with the new one, what moves over, and what it has no place for. */
export function LookedAt({ mechanism, part, onSaid }: LookedAtProps) {
  const { looked } = part;
  const { hazards = [] } = partById(mechanism.map, part.mapPart) ?? {};
  const { condition = 'good', text = '', includes: came = [], lacks: left = [] } = looked ?? {};
  const start: Looked = { condition, text, includes: came, lacks: left };
  const { field, pick, sent, offered } = useFields(schema, start);
  const [includes, lacks] = [pick('includes'), pick('lacks')];
  const pieces = comparePieces(mechanism, part.mapPart, []);
  const carried = [...pieces.movesOver, ...pieces.renewed];
  const places = placesOn(mechanism, part.mapPart);
  const flip = ({ value, onChange }: typeof includes, id: string) =>
    onChange(value.includes(id) ? value.filter((each) => each !== id) : [...value, id]);
  const look = sent((said) => onSaid({ type: 'part-looked', data: { part: part.id, ...said } }));
  return (
    <form aria-label="Looked at" onSubmit={look} className="flex flex-col gap-3 border-t border-hair pt-4">
      <h2 className="text-lead font-bold">Old and new side by side</h2>
      <div className="flex flex-wrap items-end gap-4">
        <Choice
          label="Condition"
          {...pick('condition')}
          options={(Object.keys(CONDITIONS) as PartCondition[]).map((value) => ({ value, label: CONDITIONS[value] }))}
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
      {offered && <Offered said={[CONDITIONS[condition], text].filter(Boolean).join(', ')} onTake={offered.take} />}
      {carried.length > 0 && (
        <fieldset>
          <legend className="text-note text-quiet">The old one carries. Press what came with the new one.</legend>
          <ul className="grid gap-x-6 md:grid-cols-2">
            {carried.map((each) => (
              <Toggle
                key={each.id}
                label={each.name}
                on={includes.value.includes(each.id)}
                said={
                  includes.value.includes(each.id)
                    ? 'came with it'
                    : each.reuse === 'single-use'
                      ? 'new piece needed'
                      : 'moves over'
                }
                onFlip={() => flip(includes, each.id)}
              />
            ))}
          </ul>
        </fieldset>
      )}
      {places.length > 0 && (
        <details>
          <summary className="min-h-12 cursor-pointer py-3 text-body">
            Holes and sockets{lacks.value.length > 0 ? `, ${lacks.value.length} without a counterpart` : ''}
          </summary>
          <ul className="grid gap-x-6 md:grid-cols-2">
            {places.map((each) => (
              <Toggle
                key={each.id}
                label={thingName(mechanism.map, each.id)}
                on={!lacks.value.includes(each.id)}
                said={lacks.value.includes(each.id) ? 'no place for it: left over' : 'has its place'}
                onFlip={() => flip(lacks, each.id)}
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
