import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { gannetWorks, tern5 } from '../../../test/maps.ts';
import { reportOf } from './index.ts';

const report = (bench: TestBench) => reportOf(bench.mechanism, bench.state);

describe('the report', () => {
  it('says what was done, tried, told and kept, with nothing left to look up', () => {
    const bench = new TestBench(tern5(), [{ replace: 'cell' }]);
    bench.send('test', { function: 'touch', result: 'fails', stage: 'intake' });
    bench.prepare().until();
    bench.send('test', { function: 'touch', result: 'fails', stage: 'after' });
    const said = report(bench);
    expect(said.done).toEqual(['Replace Battery']);
    expect(said.parts.map(({ name, from }) => [name, from])).toEqual([['Battery', 'source not recorded']]);
    expect(said.toKnow).toEqual(expect.arrayContaining([...bench.state.prepared!.told!]));
    expect(bench.state.prepared!.told!.length).toBeGreaterThan(0);
    expect(said.toKnow.join()).toContain('Seal renewed: water resistance is not proven.');
    expect(said.toKnow.join()).toContain('a matter of local rules');
    expect(said.tests.find(({ name }) => name === 'Touch')).toMatchObject({
      before: 'fails',
      after: 'fails',
      note: 'an old fault',
    });
    expect(said.screws).toMatch(/^\d+ screws out, \d+ back in, none left on the mat\.$/);
    expect([...said.isNew]).toEqual(['cell']);
  });

  it('names torques out of their window, what is missing and what is lost by the repair', () => {
    const bench = new TestBench(gannetWorks(), [{ remove: 'camera' }]).prepare().until('make:clamp-screw');
    bench.send('trouble', { kind: 'screw-lost', text: 'rolled off', joint: 'clamp-screw', point: 'k1' });
    bench.send('tightened', { joint: 'lid-screws', point: 'l1', peak_Ncm: 14 });
    const said = report(bench);
    expect(said.torques).toEqual(['Upper right screw of Connector lid: 14 N·cm (1.43 kgf·cm), above its window']);
    expect(said.screws).toContain('1 missing');
    expect(said.troubles).toEqual(['Screw lost, Lamp flex and Rear camera: rolled off']);
    const bound = new TestBench(tern5(), [{ replace: 'lower-board' }]);
    expect(report(bound).tests.find(({ note }) => note.startsWith('lost'))).toBeDefined();
  });

  it('is whole before anything was done', () => {
    const said = report(new TestBench(gannetWorks(), []));
    expect(said).toMatchObject({ done: [], parts: [], screws: 'No screw came out.', finished: null, photos: [] });
  });
});
