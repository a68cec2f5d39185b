import { type WarmSource, sourceNamed } from '@nibrel/core/model/sources';
import { RECIPES, settingOfRecipe, type Touch, TOUCHES, usualSetting } from '@nibrel/core/physics/heat';
import type { MeasuredSource } from '@nibrel/core/workshop/shop';
import { capital, countdown } from '@nibrel/core/planner/words';
import { Choice } from '../ui/choice.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { Slide } from '../ui/slide.tsx';
import { originWords } from './advice.ts';
import { SOURCE_OPTIONS } from './source-options.ts';
import type { SetUp } from './set-up.ts';
import { temperature } from '../app/units.ts';

interface SourceFormProps {
  readonly setUp: SetUp;
  readonly measured: MeasuredSource | null;
  /** the bond that is looked at */
  readonly on: { readonly map: string; readonly joint: string };
  readonly laidOver: readonly string[];
  onKind(kind: WarmSource): void;
  onChange(change: Partial<SetUp>): void;
  onLaidOver(ids: readonly string[]): void;
}

const TOUCH_WORDS: Readonly<Record<Touch, string>> = {
  all: 'all of the face',
  upper: 'the upper half',
  lower: 'the lower half',
  top: 'a strip along the top',
  bottom: 'a strip along the bottom',
  left: 'a strip along the left',
  right: 'a strip along the right',
};
const MOST_LAID_OVER = 3;

/** The source, how hot, how long, where, and how it is thought to give its heat. */
export function SourceForm({ setUp, measured, on, laidOver, onKind, onChange, onLaidOver }: SourceFormProps) {
  const { setting, heat_s, touch } = setUp;
  const { low, likely, high } = setting.transfer;
  const lay = (id: string) =>
    onLaidOver(
      laidOver.includes(id) ? laidOver.filter((each) => each !== id) : [...laidOver, id].slice(-MOST_LAID_OVER),
    );
  return (
    <>
      <Choice label="Source" value={setting.kind} options={SOURCE_OPTIONS} onChange={onKind} />
      <Slide
        label={capital(sourceNamed(setting.kind).name)}
        said={temperature(setting.temp_C)}
        value={setting.temp_C}
        min={40}
        max={setting.kind === 'plate' ? 400 : 160}
        step={1}
        onChange={(temp_C) => onChange({ setting: { ...setting, temp_C } })}
      />
      <Slide
        label="On for"
        said={countdown(heat_s)}
        value={heat_s}
        min={30}
        max={1200}
        step={10}
        onChange={(seconds) => onChange({ heat_s: seconds })}
      />
      <div className="text-body">
        <p>
          Gives{' '}
          <strong>
            {Math.round(low)} to {Math.round(high)} W/m²K
          </strong>
          , likely {Math.round(likely)}
        </p>
        <p className="text-note text-quiet">{originWords(setting, measured, on)}</p>
        {measured && (
          <Choice
            label="Transfer"
            value={setting.origin === measured.setting.origin ? 'measured' : 'guess'}
            options={[
              { value: 'measured', label: 'as measured' },
              { value: 'guess', label: 'the guess' },
            ]}
            onChange={(which) => {
              const { transfer, origin } = which === 'measured' ? measured.setting : usualSetting(setting.kind);
              onChange({ setting: { ...setting, transfer, origin } });
            }}
          />
        )}
      </div>
      <SelectField
        id="heat-touch"
        label="Touches"
        value={touch}
        options={TOUCHES.map((each) => ({ value: each, label: TOUCH_WORDS[each] }))}
        onChange={(next) => onChange({ touch: next })}
      />
      <fieldset>
        <legend className="text-note text-quiet">Recipes in use, at most three laid over</legend>
        {RECIPES.map((recipe) => (
          <div key={recipe.id} className="flex items-center border-b border-hair">
            <label className="flex min-h-12 grow items-center gap-3 py-1 text-body">
              <input
                type="checkbox"
                className="size-5 shrink-0 accent-ink"
                checked={laidOver.includes(recipe.id)}
                onChange={() => lay(recipe.id)}
              />
              <span>
                {recipe.name(temperature(recipe.temp_C))}
                {laidOver.includes(recipe.id) && <span className="block text-note text-quiet">{recipe.note}</span>}
              </span>
            </label>
            <button
              type="button"
              className="min-h-12 px-2 text-note whitespace-nowrap underline decoration-hair underline-offset-4"
              onClick={() => onChange({ setting: settingOfRecipe(recipe), heat_s: recipe.seconds })}
              aria-label={`Set up: ${recipe.name(temperature(recipe.temp_C))}`}
            >
              set up
            </button>
          </div>
        ))}
      </fieldset>
    </>
  );
}
