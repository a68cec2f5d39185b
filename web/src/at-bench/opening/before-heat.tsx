import { type WarmSource as Source, sourceNamed } from '@nibrel/core/model/sources';
import { type HeatSetting } from '@nibrel/core/physics/heat';
import { capital, plural } from '@nibrel/core/planner/words';
import type { AdviceWords } from '../../heat/advice.ts';
import { SOURCE_OPTIONS } from '../../heat/source-options.ts';
import { Choice } from '../../ui/choice.tsx';
import { temperature } from '../../app/units.ts';

/** How the clock of a source that only stands in for one runs. */
export type Pace = 'real' | 'stand-in' | 'faster';
export const PACES: Readonly<Record<Exclude<Pace, 'real'>, number>> = { 'stand-in': 1, faster: 10 };

export function Foretold({ words }: { readonly words: AdviceWords }) {
  return (
    <div>
      <p className={`text-far leading-tight font-bold ${words.isGood ? '' : 'text-now'}`}>{words.headline}</p>
      <p className="text-lead text-quiet">{words.detail}</p>
    </div>
  );
}

/** Nothing can be counted down: the recipe's time and the hand have to do. */
export function Unforeseen({ problem }: { readonly problem: string }) {
  return <p className="text-lead font-bold text-now">Nothing can be predicted here. {problem}</p>;
}

/** A source that will not do for this bond, and why. */
export interface Other {
  readonly kind: Source;
  readonly isChosen: boolean;
  readonly why: string;
}

interface BeforeHeatProps {
  readonly setting: HeatSetting;
  readonly origin: string;
  readonly distance_mm: number | undefined;
  readonly face: string;
  readonly standIns: boolean;
  /** a cell lies behind an edge of the bond */
  readonly hasCellBehind: boolean;
  readonly pace: Pace;
  /** sources that will not do here */
  readonly others: readonly Other[];
  /** for the whole cut, this one counted; null where that is not foreseen */
  readonly warmings: number | null;
  onKind(kind: Source): void;
  onPace(pace: Pace): void;
}

export function BeforeHeat({
  setting,
  origin,
  distance_mm,
  face,
  standIns,
  hasCellBehind,
  pace,
  others,
  warmings,
  onKind,
  onPace,
}: BeforeHeatProps) {
  return (
    <div className="flex flex-col gap-3">
      <Choice label="Heat source" value={setting.kind} options={SOURCE_OPTIONS} onChange={onKind} />
      <p className="text-body">
        {capital(sourceNamed(setting.kind).name)} at {temperature(setting.temp_C)}
        {distance_mm ? `, from ${distance_mm} mm` : ''}, on the {face}. <span className="text-quiet">{origin}</span>
      </p>
      {warmings !== null && (
        <p className="text-body">{plural(warmings, 'warming')} for the whole cut, this one counted.</p>
      )}
      {others.length > 0 && (
        <ul aria-label="What will not do here" className="text-body text-quiet">
          {others.map(({ kind, isChosen, why }) => (
            <li key={kind} className={isChosen ? 'font-bold text-now' : ''}>
              {capital(sourceNamed(kind).name)}: {why}.
            </li>
          ))}
        </ul>
      )}
      {setting.kind === 'air' && (
        <p className="text-body">
          {hasCellBehind
            ? 'Nothing stays in the gap under hot air: plastic softens, and a cell lies behind, which metal can cut.'
            : 'Whatever stays in the gap under hot air has to be metal, not plastic.'}
        </p>
      )}
      {standIns && (
        <Choice
          label="Which source"
          value={pace}
          options={[{ value: 'real', label: 'a real one' }, 'stand-in', { value: 'faster', label: 'stand-in, ×10' }]}
          onChange={onPace}
        />
      )}
    </div>
  );
}
