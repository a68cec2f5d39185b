import { describe, expect, it } from 'vitest';
import { changed, dunlinOpen, sample } from '../../../test/maps.ts';
import { planRepair } from './plan.ts';
import { PlanError } from '../search/index.ts';
import { before, budget, ids, physical, plan, playBack } from '../../../test/played-plans.ts';

describe('the small example', () => {
  it('plans as its last line says', () => {
    const { strip } = plan(sample(), [{ replace: 'screen' }]);
    const said = [
      'release:edge-screws',
      'heat:seal',
      'release:seal',
      'open:screen',
      'release:lid-screws',
      'lift:lid',
      'release:cell-plug',
      'release:screen-plug',
      'lift:screen',
    ];
    expect(ids(strip).filter((id) => said.includes(id))).toEqual(said);
    expect(ids(physical(strip))).toEqual(said.filter((id) => !id.startsWith('heat')));
    expect(ids(strip)).not.toContain('release:cell-tabs');
  });

  it('counts screws by kind, and splits hands-on from waiting', () => {
    const made = plan(sample(), [{ replace: 'screen' }]);
    expect(made.screws).toEqual([
      { fastener: 'edge', count: 2, moved: 0 },
      { fastener: 'short', count: 1, moved: 0 },
    ]);
    expect(made.seconds.waiting).toBe([...made.strip, ...made.rebuild].reduce((sum, op) => sum + (op.wait_s ?? 0), 0));
    expect(made.optimal).toBe(true);
    expect(made.lowerBoundSeconds).toBe(made.seconds.strip + made.seconds.rebuild);
  });

  it('closes it up again from where it was left, and asks for nothing else', () => {
    const done = [{ kind: 'release', joint: 'edge-screws' } as const];
    const made = planRepair({ map: sample(), targets: [], done }, budget);
    expect(made.strip).toEqual([]);
    expect(ids(physical(made.rebuild))).toEqual(['make:edge-screws']);
  });

  it('counts a target as replaced once its new part is in', () => {
    const strip = physical(plan(sample(), [{ replace: 'screen' }]).strip).map(
      ({ kind, joint, part }) => ({ kind, joint, part }) as never,
    );
    const done = [...strip, { kind: 'fit', part: 'screen', new: true } as never];
    const made = planRepair({ map: sample(), targets: [{ replace: 'screen' }], done }, budget);
    expect(made.strip).toEqual([]);
    expect(ids(physical(made.rebuild))).toEqual(expect.arrayContaining(['make:screen-plug', 'close:screen']));
  });

  it('goes on from a state against the rules, with a warning', () => {
    const made = planRepair(
      { map: sample(), targets: [{ replace: 'cell' }], done: [{ kind: 'lift', part: 'lid' }] },
      budget,
    );
    expect(made.warnings).toContainEqual(expect.objectContaining({ code: 'out-of-order', part: 'lid' }));
    expect(ids(made.rebuild)).toEqual(expect.arrayContaining(['fit:lid', 'make:lid-screws']));
  });

  it('goes by the default where a school is not known, and says so', () => {
    const made = plan(sample(), [{ replace: 'screen' }], { heat: 'campfire', mood: 'good' } as never);
    expect(made.warnings.filter(({ code }) => code === 'policy')).toHaveLength(2);
    expect(made.strip.find((op) => op.name === 'heat')).toMatchObject({ tool: 'warming plate' });
  });

  it('names the field where a target can not be understood', () => {
    expect(() => plan(sample(), [{ replace: 'nothing' }])).toThrow(PlanError);
    expect(() => plan(sample(), [{ remove: 'lid' }, { reach: 'nowhere' }])).toThrow(
      expect.objectContaining({ path: 'targets[1].reach' }),
    );
  });
});

describe('a map of everything that no demo has', () => {
  it('isolates directly after a live joint', () => {
    const map = changed(sample(), (copy) => {
      copy.parts.push({ ...copy.parts[2]!, id: 'ribbon', name: 'Ribbon', kind: 'flex' } as never);
      Object.assign(copy.parts[2]!, { under: [...copy.parts[2]!.under!, { joint: 'ribbon-plug' }] });
      copy.joints.push({
        id: 'ribbon-plug',
        type: 'connector',
        style: 'press',
        holds: ['ribbon'],
        to: 'frame',
        face: 'front',
        under: [{ part: 'screen', until: 'open' }],
      } as never);
      copy.joints.push({
        id: 'ribbon-clip',
        type: 'clip',
        holds: ['ribbon'],
        to: 'frame',
        face: 'front',
        under: [{ part: 'screen', until: 'open' }],
      } as never);
    });
    const made = plan(map, [{ remove: 'ribbon' }]);
    const live = made.strip.find((op) => op.live)!;
    expect(live.id).toBe('release:ribbon-plug');
    expect(made.warnings).toContainEqual(expect.objectContaining({ code: 'live', joint: 'ribbon-plug' }));
    const rest = ids(made.strip).slice(ids(made.strip).indexOf(live.id) + 1);
    expect(rest.slice(0, rest.indexOf('release:cell-plug') + 1).sort()).toEqual(
      ['lift:lid', 'release:cell-plug', 'release:lid-screws']
        .filter((id) => rest.slice(0, rest.indexOf('release:cell-plug') + 1).includes(id))
        .sort(),
    );
    expect(rest).toContain('release:cell-plug');
    expect(playBack(map, made)).toEqual([]);
  });

  it('takes the cell out before a bond is cut that endangers it, where that is the school', () => {
    const map = changed(dunlinOpen(), (copy) => {
      const tape = copy.joints.find((each) => each.id === 'flex-tape')!;
      Object.assign(tape, { style: 'pad', endangers: ['cell'], under: [] });
      const flex = copy.parts.find((each) => each.id === 'port-flex')!;
      Object.assign(flex, { under: [{ part: 'mid-cover', until: 'off' }] });
    });
    before(
      plan(map, [{ replace: 'port-flex' }], { batteryWhilePrying: 'out' }).strip,
      'lift:cell',
      'release:flex-tape',
    );
  });

  it('puts one heat before the bonds of a group', () => {
    const map = changed(sample(), (copy) => {
      const seal = copy.joints.find((each) => each.id === 'seal')!;
      Object.assign(seal, { heatGroup: 'face' });
      copy.joints.push({ ...structuredClone(seal), id: 'seal-2', segments: [] } as never);
    });
    const { strip } = plan(map, [{ replace: 'screen' }]);
    expect(strip.filter((op) => op.name === 'heat')).toHaveLength(1);
    const at = ids(strip).findIndex((id) => id.startsWith('heat:'));
    expect(
      ids(strip)
        .slice(at + 1, at + 3)
        .sort(),
    ).toEqual(['release:seal', 'release:seal-2']);
  });
});
