import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { changed, shearwater11 } from '../../../test/maps.ts';
import { plan } from '../../../test/played-plans.ts';
import { doneStep, nextPress } from '../../bench/in-hand/index.ts';
import { cautionFor } from '../../planner/words/index.ts';

/** The tablet, with a sensor soldered to its left cell. */
const soldered = () =>
  changed(shearwater11(), (copy) => {
    const cell = copy.parts.find(({ hazards }) => hazards?.includes('lithium'))!;
    const thermal = { ...structuredClone(cell), id: 'cell-sensor', name: 'Cell sensor', kind: 'sensor' as const };
    copy.parts.push({ ...thermal, hazards: [] });
    copy.joints.push({
      id: 'sensor-weld',
      type: 'solder',
      holds: ['cell-sensor'],
      to: cell.id,
      face: cell.face,
      points: [{ id: 'plus', x: cell.box.x + 2, y: cell.box.y + 2 }],
      under: structuredClone(cell.under ?? []),
    } as unknown as (typeof copy.joints)[number]);
  });

const ALLOWED = { lead: 'Maren', text: '', charge: 0.2, confirmed: ['training', 'local rules', 'eyes', 'sand'] };

describe('an iron at a cell', () => {
  it('is for a lead to allow, whatever the school and whatever asked for it', () => {
    const bench = new TestBench(soldered(), [{ replace: 'cell-sensor' }]);
    bench.until('release:sensor-weld');
    const step = doneStep(bench.ahead()[0]!);
    expect(nextPress(bench.mechanism, bench.state, bench.aheadWhole(), 0).does).toEqual({
      kind: 'ask',
      about: 'transplant',
    });
    expect(bench.send('did', { steps: [step] }).problem).toContain('for a lead to allow');
    expect(bench.send('did', { steps: [step], anyway: 'it came off' }).problem).toContain('for a lead to record');
    expect(bench.send('transplant-allowed', ALLOWED).problem).toContain('for a lead');
    expect(bench.send('transplant-allowed', ALLOWED, 'Maren').problem).toBeNull();
    expect(bench.send('did', { steps: [step] }).problem).toBeNull();
  });

  it('is cautioned as an iron at lithium, and never as plastic tools', () => {
    const map = soldered();
    const { strip, rebuild, warnings } = plan(map, [{ replace: 'cell-sensor' }]);
    const welds = [...strip, ...rebuild].filter(({ joint }) => joint === 'sensor-weld');
    expect(welds.map(({ kind }) => kind)).toEqual(['release', 'make']);
    for (const op of welds) expect(cautionFor(map, op, true)).toMatch(/iron or welder at a lithium cell/);
    expect(welds.map((op) => cautionFor(map, op, false)).join()).not.toContain('Plastic');
    expect(
      warnings
        .filter(({ joint }) => joint === 'sensor-weld')
        .map(({ text }) => text)
        .join(),
    ).not.toMatch(/[Pp]lastic/);
  });
});
