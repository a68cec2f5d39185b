import { describe, expect, it } from 'vitest';
import { rearDevice, screwedFromBehind, trimmed } from '../../../test/rear-device.ts';
import { dunlinOpen } from '../../../test/maps.ts';
import { before, ids, plan } from '../../../test/played-plans.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { opWords } from '../words/index.ts';

const replaced = [{ replace: 'display' }];

describe('a display that goes down before the last closings', () => {
  it('lies on a rim that was scraped, wiped and laid while the frame was bare', () => {
    for (const map of [screwedFromBehind(), trimmed(), rearDevice()]) {
      for (const targets of [replaced, [{ replace: 'frame' }], [{ full: true }] as const]) {
        const { rebuild } = plan(map, targets);
        for (const id of ['clean:seal', 'wipe:seal', 'dry:seal', 'lay:seal']) before(rebuild, id, 'fit:display');
        before(rebuild, 'fit:display', 'liner-off:seal');
      }
    }
  });

  it('is tried before it is glued, where its plugs and the battery can be plugged before', () => {
    const { rebuild, warnings } = plan(trimmed(), replaced);
    for (const id of ['liner-off:seal', 'close:display', 'make:seal', 'fit:trim']) before(rebuild, 'test:before', id);
    const test = rebuild.find(({ id }) => id === 'test:before')!;
    expect(test.functions).toEqual(['picture', 'starts']);
    expect(opWords(trimmed(), test).title).toBe('Try it before sealing');
    expect(warnings.map(({ code }) => code)).not.toContain('untried');
  });

  it('is said to be down already where it can not, and why', () => {
    const map = screwedFromBehind();
    const { rebuild, warnings } = plan(map, replaced);
    before(rebuild, 'make:seal', 'test:before');
    const words = opWords(
      map,
      rebuild.find(({ id }) => id === 'test:before')!,
    );
    expect(words).toMatchObject({ title: 'Try it before closing', hint: expect.stringContaining('Display is down') });
    expect(warnings.find(({ code }) => code === 'untried')?.text).toMatch(
      /before it can be tried. Display: press connector to Board comes only after/,
    );
  });

  it('is tried before closing, not before sealing, where nothing is glued after it', () => {
    const title = (map: DeviceMap, part: string) => {
      const { rebuild } = plan(map, [{ replace: part }]);
      return opWords(
        map,
        rebuild.find(({ id }) => id === 'test:before')!,
      ).title;
    };
    expect(title(dunlinOpen(), 'cell')).toBe('Try it before closing');
    expect(title(rearDevice(), 'display')).toBe('Try it before sealing');
  });

  it('is said so also where the plan is made once it is down', () => {
    const { strip, rebuild } = plan(screwedFromBehind(), replaced);
    const all = [...strip, ...rebuild].filter(({ kind }) => kind !== 'procedure');
    const done = all
      .slice(
        0,
        all.findIndex(({ id }) => id === 'fit:board'),
      )
      .map((op) => ({
        kind: op.kind as 'fit',
        ...(op.joint ? { joint: op.joint } : { part: op.part! }),
        ...(op.staysOpen ? { staysOpen: true } : {}),
        ...(op.isNew ? { new: true } : {}),
      }));
    const rest = plan(screwedFromBehind(), replaced, {}, done);
    expect(ids(rest.strip)).toEqual([]);
    expect(rest.rebuild.find(({ id }) => id === 'test:before')?.untried).toEqual(['display']);
  });
});
