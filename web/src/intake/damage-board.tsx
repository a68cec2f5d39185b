import Joi from 'joi';
import { type Damage, DAMAGES, type EventData } from '@nibrel/core/job/events';
import { type JobState } from '@nibrel/core/job/state';
import type { DeviceMap, Point } from '@nibrel/core/model/device-map';
import { partName } from '@nibrel/core/planner/words';
import { useState } from 'react';
import { DAMAGE_WORDS, DamageMark, DamageSign } from '../drawing/damage-mark.tsx';
import { DeviceDrawing, type Shown } from '../drawing/device-drawing.tsx';
import { centreOf, fromTheTop, onSide, type Side } from '../drawing/geometry.ts';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { picked } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface DamageBoardProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly side: Side;
  /** what of the device is off or stands open by now */
  readonly shown: Shown;
  onSide(side: Side): void;
  onDamage(damage: EventData['damage']): void;
  onRetract(id: string): void;
}

const schema = Joi.object<{ part: string }>({ part: picked() });

/** Damage marked on the drawing where it is: pick what it is, then press the place, or name the part. */
export function DamageBoard({ map, state, side, shown, onSide: flip, onDamage, onRetract }: DamageBoardProps) {
  const [kind, setKind] = useState<Damage>('crack');
  const parts = fromTheTop(map, side).filter((each) => !shown.gone?.has(each.id));
  const mark = (at: Point, part?: string) => onDamage({ kind, face: side, ...at, ...(part ? { part } : {}) });
  const { pick, sent } = useFields(schema, { part: '' });
  const named = pick('part');
  const isHere = parts.some(({ id }) => id === named.value);
  const byName = sent(({ part: wanted }) => {
    const part = parts.find((each) => each.id === wanted) ?? parts[0];
    if (part) mark(centreOf(part), part.id);
  });
  const here = state.damage.filter((each) => each.face === side || each.face === 'edge');
  return (
    <section aria-label="Damage" className="flex min-h-0 flex-col gap-2 px-4 py-3">
      <div className="flex flex-wrap items-center gap-2">
        <Choice label="Side" value={side} onChange={flip} options={['front', 'back']} />
        <p className="text-body text-quiet">Mark what it is, then where</p>
      </div>
      <Choice
        label="Damage"
        value={kind}
        onChange={setKind}
        options={DAMAGES.map((each) => ({ value: each, label: DAMAGE_WORDS[each].toLowerCase() }))}
      />
      <div className="max-h-[56dvh] min-h-72 grow lg:max-h-none">
        <DeviceDrawing map={map} side={side} gone={shown.gone} label={`${map.name}, ${side}`} onPlace={mark}>
          {here.map((each) => (
            <DamageMark key={each.id} kind={each.kind} x={onSide(map, side, each.x)} y={each.y} />
          ))}
        </DeviceDrawing>
      </div>
      <form onSubmit={byName} className="flex items-end gap-2">
        <div className="grow">
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
        <ul aria-label="Marks" className="max-h-24 overflow-y-auto border-t border-hair text-body">
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
    </section>
  );
}
