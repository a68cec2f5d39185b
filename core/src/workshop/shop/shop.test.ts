import { describe, expect, it } from 'vitest';
import { usualSetting } from '../../physics/heat/index.ts';
import { foldShop, stockLevels } from './shop-fold.ts';
import { SHOP_EVENT_DATA, type ShopEvent, type ShopEventData, type ShopEventType } from './shop-events.ts';

let count = 0;
function event<Type extends ShopEventType>(
  type: Type,
  data: ShopEventData[Type],
  at = '2026-11-24T08:00:00Z',
): ShopEvent {
  count++;
  return { id: `00000000-0000-4000-8000-${String(count).padStart(12, '0')}`, type, at, by: 'Maren', data } as ShopEvent;
}

const tape = { id: 'tape-2', name: 'Tape 2 mm', unit: 'mm', key: 'tape', lowAt: 2000 } as const;

describe('the workshop', () => {
  it('counts stock down by what jobs have used since it was counted, never twice', () => {
    const shop = foldShop([
      event('item', tape),
      event('counted', { item: 'tape-2', quantity: 5000 }, '2026-11-20T08:00:00Z'),
      event('arrived', { item: 'tape-2', quantity: 1000 }, '2026-11-21T08:00:00Z'),
    ]);
    const used = [
      { key: 'tape', quantity: 400, at: '2026-11-19T08:00:00Z' },
      { key: 'tape', quantity: 420, at: '2026-11-22T08:00:00Z' },
      { key: 'liquid-adhesive', quantity: 6, at: '2026-11-22T08:00:00Z' },
    ];
    expect(stockLevels(shop, used)).toEqual([{ ...tape, left: 5580, low: false }]);
    const more = [...used, { key: 'tape', quantity: 4000, at: '2026-11-23T08:00:00Z' }];
    expect(stockLevels(shop, more)[0]).toMatchObject({ left: 1580, low: true });
  });

  it('keeps its tools, limits and schools, the last word counting', () => {
    const shop = foldShop([
      event('tool', { name: 'T3', owned: true }),
      event('tool', { name: 'PH000', owned: true }),
      event('tool', { name: 'T3', owned: false }),
      event('limits', { swelling_percent: 6 }),
      event('schools', { display: 'taken-off' }),
      event('schools', { screws: 'containers-apart' }),
      event('zone', { zone: 'Europe/London' }),
    ]);
    expect([...shop.tools]).toEqual(['PH000']);
    expect(shop.limits).toMatchObject({ swelling_percent: 6, runDownTo: 0.25, returnWindow_days: 30 });
    expect(shop.schools).toEqual({ display: 'taken-off', screws: 'containers-apart' });
    expect(shop).toMatchObject({ zone: 'Europe/London', revision: 7 });
  });

  it('keeps materials by name and measured sources in their order', () => {
    const foam = { id: 'acrylic foam tape', k: 0.07, rho: 750, cp: 1700, source: 'measured here' };
    const source = { setting: usualSetting('plate'), residual_C: 0.3, map: 'tern-5', joint: 'front-seal' };
    const shop = foldShop([
      event('material', foam),
      event('material', { ...foam, k: 0.08 }),
      event('source', source, '2026-11-20T08:00:00Z'),
      event('source', { ...source, residual_C: 0.2 }, '2026-11-21T08:00:00Z'),
    ]);
    expect([...shop.materials.values()]).toEqual([{ ...foam, k: 0.08 }]);
    expect(shop.sources.map((each) => [each.at, each.residual_C])).toEqual([
      ['2026-11-20T08:00:00Z', 0.3],
      ['2026-11-21T08:00:00Z', 0.2],
    ]);
    const refused = (data: object) => SHOP_EVENT_DATA.source.validate(data).error?.message ?? '';
    expect(refused(source)).toBe('');
    const upsideDown = { ...source.setting, transfer: { low: 600, likely: 350, high: 200 } };
    expect(refused({ ...source, setting: upsideDown })).toContain('likely');
    expect(refused({ ...source, setting: { ...source.setting, kind: 'sun' } })).toContain('kind');
    expect(SHOP_EVENT_DATA.material.validate({ ...foam, cp: 0 }).error?.message).toContain('cp');
  });

  it('lets a count of what is not on the shelf pass by', () => {
    expect(stockLevels(foldShop([event('counted', { item: 'none', quantity: 5 })]), [])).toEqual([]);
  });

  it('refuses limits out of range, naming the field', () => {
    const refused = (data: object) => SHOP_EVENT_DATA.limits.validate(data).error?.message ?? '';
    expect(refused({ swelling_percent: 8 })).toBe('');
    expect(refused({ returnWindow_days: -3 })).toContain('returnWindow_days');
    expect(refused({ runDownTo: 25 })).toContain('runDownTo');
    expect(refused({})).not.toBe('');
    expect(refused({ cutSpeed_mm_s: 0 })).toContain('cutSpeed_mm_s');
    expect(refused({ benchVolume_L: 0 })).toContain('benchVolume_L');
    expect(refused({ solventBelow_C: 120 })).toContain('solventBelow_C');
    expect(refused({ airChanges_h: -6, drop_uL: 50 })).toContain('airChanges_h');
    expect(SHOP_EVENT_DATA.zone.validate({ zone: 'Pier/4' }).error?.message).toContain('no time zone');
  });
});
