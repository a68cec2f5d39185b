import { readFileSync } from 'node:fs';
import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import { foresee, RECIPES, settingOfRecipe, stackOfBond, usualSetting } from '@nibrel/core/physics/heat';
import { describe, expect, it } from 'vitest';
import { wordsFor, wrapped } from './chart-words.ts';

const map = JSON.parse(
  readFileSync(new URL('../../../demo/device-maps/shearwater-11.json', import.meta.url), 'utf8'),
) as DeviceMap;
const bond = map.joints.find((each) => each.id === 'front-bond') as BondJoint;
const stack = stackOfBond(map, bond);
const colours = {
  ink: 'ink',
  quiet: 'quiet',
  hair: 'hair',
  now: 'now',
  wash: 'wash',
  done: 'done',
  doneWash: 'done-wash',
  care: 'care',
  sheet: 'sheet',
};
const foresight = foresee({ stack, soften_C: 58, setting: usualSetting('plate'), heat_s: 300 });
const shown = foresight.bands.filter(({ id, max_C }) => id === 'bond' || max_C !== undefined);
const props = { foresight, soften_C: 58, heat_s: 300, label: '' };

describe('what is written on the curves', () => {
  it('is every limit with its name, the hottest first, and where the bond is soft', () => {
    const { levels } = wordsFor(props, shown, colours);
    expect(levels.map(({ words }) => words)).toEqual([
      'Display: at most 80 °C',
      'Cell face: at most 60 °C',
      'soft from 58 °C',
    ]);
    // told by a word and a dash, not by colour alone: limits share one colour
    expect(levels.map(({ colour }) => colour)).toEqual(['care', 'care', 'now']);
    expect(new Set(levels.map(({ dash }) => dash.join())).size).toBe(3);
  });

  it('is never cut: a long name goes on in the next line', () => {
    const ctx = { measureText: (words: string) => ({ width: 8 * words.length }) as TextMetrics };
    expect(wrapped(ctx, 'Cell face')).toEqual(['Cell face']);
    const lines = wrapped(ctx, 'Hot air on low from 75 to 100 mm');
    expect(lines.length).toBeGreaterThan(1);
    expect(lines.join(' ')).toBe('Hot air on low from 75 to 100 mm');
  });

  it('is every moment in its order, now among them while a source is on', () => {
    const said = (more: object) => wordsFor({ ...props, ...more }, shown, colours).moments.map(({ words }) => words);
    expect(said({})).toEqual([expect.stringMatching(/^soft \d:\d\d$/), 'off 5:00']);
    expect(said({ now_s: 20 })[0]).toBe('now 0:20');
    expect(said({ now_s: 400 }).at(-1)).toBe('now 6:40');
    // a source that never makes it soft has no such moment
    const never = foresee({ stack, soften_C: 58, setting: usualSetting('pad', 50), heat_s: 300 });
    expect(said({ foresight: never })).toEqual(['off 5:00']);
  });

  it('is the name of each curve, and of each recipe that is laid over', () => {
    const pack = RECIPES.find(({ id }) => id === 'pack-edge')!;
    const other = foresee({ stack, soften_C: 58, setting: settingOfRecipe(pack), heat_s: pack.seconds });
    const { names } = wordsFor({ ...props, overlays: [{ name: pack.name(''), foresight: other }] }, shown, colours);
    expect(names.map(({ words, bold }) => [words, bold])).toEqual([
      ['Bond', true],
      ['Display', true],
      ['Cell face', true],
      [pack.name(''), false],
    ]);
  });
});
