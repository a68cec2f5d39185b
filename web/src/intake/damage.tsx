import Joi from 'joi';
import { type Damage, DAMAGES, type EventData } from '@nibrel/core/job/events';
import { type JobState } from '@nibrel/core/job/state';
import type { DeviceMap, Point } from '@nibrel/core/model/device-map';
import { partName } from '@nibrel/core/planner/words';
import { DAMAGE_WORDS, DamageMark, DamageSign } from '../drawing/damage-mark.tsx';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import type { Shown } from '@nibrel/core/drawn/shown';
import { centreOf, fromTheTop, onSide, type Side } from '@nibrel/core/drawn/places';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { picked } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const schema = Joi.object<{ part: string }>({ part: picked() });

interface DamagePickProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly side: Side;
  readonly kind: Damage;
  /** what of the device is off or stands open by now */
  readonly shown: Shown;
  onKind(kind: Damage): void;
  onDamage(damage: EventData['damage']): void;
  onRetract(id: string): void;
}

/** What the damage is; where it is pressed on the drawing, or named by its part. */
export function DamagePick({ map, state, side, kind, shown, onKind, onDamage, onRetract }: DamagePickProps) {
  const parts = fromTheTop(map, side).filter((each) => !shown.gone?.has(each.id));
  const { pick, sent } = useFields(schema, { part: '' });
  const named = pick('part');
  const isHere = parts.some(({ id }) => id === named.value);
  const byName = sent(({ part: wanted }) => {
    const part = parts.find((each) => each.id === wanted) ?? parts[0];
    if (part) onDamage({ kind, face: side, ...centreOf(part), part: part.id });
  });
  return (
    <div className="flex flex-col gap-3">
      <Choice
        label="Damage"
        value={kind}
        onChange={onKind}
        options={DAMAGES.map((each) => ({ value: each, label: DAMAGE_WORDS[each].toLowerCase() }))}
      />
      <form onSubmit={byName} className="flex items-end gap-2">
        <div className="min-w-0 grow">
          <SelectField
            id="damaged-part"
            label="Or by name"
            value={isHere ? named.value : (parts[0]?.id ?? '')}
            options={parts.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={named.onChange}
          />
        </div>
        <Button type="submit">Mark it</Button>
      </form>
      {state.damage.length > 0 && (
        <ul aria-label="Marks" className="border-t border-hair text-body">
          {state.damage.map((each) => (
            <li key={each.id} className="flex items-center gap-2 border-b border-hair">
              <DamageSign kind={each.kind} />
              <span className="grow">
                {DAMAGE_WORDS[each.kind]}, {each.part ? partName(map, each.part) : each.face}
              </span>
              <Button weight="quiet" onClick={() => onRetract(each.id)}>
                Take back
              </Button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

interface DamageDrawingProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly side: Side;
  readonly shown: Shown;
  /** null: nothing is marked by a press */
  readonly onPlace: ((at: Point, part: string | undefined) => void) | null;
}

/** The device as it came, with its marks. */
export function DamageDrawing({ map, state, side, shown, onPlace }: DamageDrawingProps) {
  const here = state.damage.filter((each) => each.face === side || each.face === 'edge');
  return (
    <div className="h-[48dvh] p-3 md:h-full">
      <DeviceDrawing
        map={map}
        side={side}
        gone={shown.gone}
        label={`${map.name}, ${side}`}
        {...(onPlace ? { onPlace } : {})}
      >
        {here.map((each) => (
          <DamageMark key={each.id} kind={each.kind} x={onSide(map, side, each.x)} y={each.y} />
        ))}
      </DeviceDrawing>
    </div>
  );
}
