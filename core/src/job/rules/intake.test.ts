import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { dunlinOpen, tern5 } from '../../../test/maps.ts';
import { doneStep } from '../../bench/in-hand/index.ts';
import { foldJob } from '../fold/fold.ts';

const display = () => new TestBench(tern5(), [{ replace: 'display' }]);
const ids = (bench: TestBench) => bench.ahead().map((op) => op.id);
const crack = { kind: 'crack', face: 'front', x: 20, y: 30, part: 'display' } as const;

describe('intake', () => {
  it('keeps words, faults, marks and photographs, and takes marks and photographs back', () => {
    const bench = display()
      .send('words', { text: 'Fell on the car deck' })
      .send('test', { function: 'microphone', result: 'fails', stage: 'intake' })
      .send('damage', crack)
      .send('photo', { shown: 'a'.repeat(64), thumb: 'b'.repeat(64), width: 1600, height: 1200 });
    expect(bench.state).toMatchObject({ words: 'Fell on the car deck', damage: [crack] });
    bench.send('note', { text: 'later' });
    for (const { id } of [...bench.state.damage, ...bench.state.photos]) bench.send('retract', { event: id });
    expect([bench.state.damage, bench.state.photos]).toEqual([[], []]);
    expect(bench.send('retract', { event: bench.state.events[0]!.id }).problem).toContain('no such mark');
    expect(bench.send('damage', { ...crack, part: 'nothing' }).problem).toContain('no part');
    expect(foldJob(bench.mechanism, bench.job, bench.state.events)).toEqual(bench.state);
  });

  it('tapes what is cracked before the film, once', () => {
    const bench = display().send('damage', crack);
    const plan = ids(bench);
    expect(plan.indexOf('tape:display')).toBe(plan.indexOf('heat:front-seal') - 1);
    expect(plan.indexOf('tape:display')).toBeGreaterThan(plan.indexOf('power-off'));
    bench.until('heat:front-seal');
    expect(ids(bench)).not.toContain('tape:display');
    expect(ids(display())).not.toContain('tape:display');
  });
});

describe('a stop', () => {
  it('by the eye is not cleared by a measurement, only by the lead', () => {
    const bench = display().send('stop', { reason: 'swelling', text: '' });
    bench.send('measure', { thickness_mm: 8.2 });
    expect(bench.problem).toBeNull();
    expect(bench.state.stopped?.reason).toBe('swelling');
    expect(bench.prepare().problem).toContain('Stopped');
    bench.send('clear', { text: 'flat on the stone' }, 'Maren');
    expect(bench.state.stopped).toBeNull();
  });

  it('is added by a measurement over the limit of 8 % (common practice), not at it', () => {
    const at = (thickness_mm: number, part?: string) =>
      display().send('measure', { thickness_mm, ...(part ? { part } : {}) }).state.stopped?.reason;
    expect(at(8.2 * 1.08 - 0.001)).toBeUndefined();
    expect(at(8.2 * 1.08 + 0.001)).toBe('swelling');
    // the cell is 4.6 mm by the map
    expect(at(4.9, 'cell')).toBeUndefined();
    expect(at(5.0, 'cell')).toBe('swelling');
    expect(display().send('measure', { thickness_mm: 5, part: 'nothing' }).problem).toContain('no part');
  });

  it('goes by the limit that the job was taken in under', () => {
    const map = tern5();
    const strict = new TestBench(map, [{ replace: 'display' }], { swelling_percent: 2 });
    expect(strict.send('measure', { thickness_mm: 8.4 }).state.stopped?.reason).toBe('swelling');
  });

  it('can end the job where it stands, by the lead; then only notes are taken', () => {
    const bench = display();
    bench.send('stop', { reason: 'leak', text: '' });
    expect(bench.send('end', { lead: 'Maren', text: 'scrapped' }).problem).toContain('Ines is none');
    bench.send('end', { text: 'to the waste store' }, 'Maren');
    expect(bench.state.ended).toMatchObject({ lead: 'Maren' });
    expect(bench.send('charge', { charge: 0.2, source: 'typed' }).problem).toContain('has ended');
    expect(bench.send('stop', { reason: 'smoke', text: 'in the store' }).problem).toBeNull();
    expect(bench.send('note', { text: 'collected' }).problem).toBeNull();
  });

  it('of a repair in which nothing was done is an end, not a finish, and one that was begun is closed up first', () => {
    const bench = display();
    expect(bench.send('finish', {}).problem).toContain('End the repair');
    expect(bench.send('end', { text: 'the owner wants it back' }).problem).toBeNull();
    const begun = display().prepare().release('edge-screws');
    expect(begun.send('end', { text: 'no time' }).problem).toContain('closed up and finished, or ended by a lead');
    expect(begun.send('end', { text: 'scrapped' }, 'Maren').problem).toBeNull();
  });
});

describe('the gate', () => {
  it('stands before the first thing that opens the device; trays may come out', () => {
    const bench = display();
    expect(bench.release('edge-screws').problem).toContain('First prepare the bench');
    expect(bench.send('screw', { joint: 'edge-screws', point: 'left' }).problem).toContain('First prepare the bench');
    expect(bench.release('tray-lock').problem).toBeNull();
    expect(bench.release('edge-screws').problem).toContain('First prepare the bench');
    bench.prepare();
    expect(bench.release('edge-screws').problem).toBeNull();
  });

  it('is behind once something was opened all the same', () => {
    const bench = display();
    bench.send('did', { steps: [{ id: 'x', kind: 'release', joint: 'edge-screws' }], anyway: 'came without screws' });
    expect(bench.problem).toBeNull();
    expect(ids(bench)).not.toContain('prepare');
  });

  it('does not question what was accepted by an earlier version', () => {
    const bench = display().prepare().release('edge-screws');
    const before = bench.state.events.filter((each) => each.type !== 'prepared');
    expect(foldJob(bench.mechanism, bench.job, before).done).toEqual(bench.state.done);
  });

  it('waits for the charge, or for a decision', () => {
    const bench = display();
    expect(ids(bench).slice(0, 3)).toEqual(['agree', 'run-down', 'prepare']);
    expect(bench.ahead()[1]!.wait_s).toBeUndefined();
    bench.send('charge', { charge: 0.6, source: 'typed' });
    expect(bench.ahead()[1]!.wait_s).toBeGreaterThan(3600);
    bench.send('timer', { step: 'run-down', seconds: 6000 });
    bench.send('charge', { charge: 0.24, source: 'meter', simulated: true });
    expect(ids(bench)).not.toContain('run-down');
    expect(bench.prepare().state.timers).toEqual([]);
    const dark = display().send('decision', { about: 'charge', text: 'the screen is dark, it can not be read' });
    expect(ids(dark)).not.toContain('run-down');
    const lifted = new TestBench(dunlinOpen(), [{ replace: 'port-board' }]);
    expect(ids(lifted).slice(0, 2)).toEqual(['charge-up', 'prepare']);
    expect(ids(lifted.send('charge', { charge: 0.5, source: 'typed' }))[0]).toBe('prepare');
  });

  it('asks the owner again only for what is new', () => {
    const bench = display();
    const owner = () => bench.aheadWhole();
    expect(owner().untold.length).toBeGreaterThan(1);
    bench.send('told', { items: owner().untold.map((each) => each.text), who: 'Aldis', how: 'by-phone' });
    expect(owner().untold).toEqual([]);
    expect(ids(bench)).not.toContain('agree');
    bench.send('targets', { targets: [{ replace: 'display' }, { replace: 'cell' }] });
    expect(
      owner()
        .untold.map((each) => each.text)
        .join(),
    ).toContain('origin');
    expect(ids(bench)[0]).toBe('agree');
  });
});

describe('a wet device', () => {
  it('has its battery off at once, is washed, dried and tried, and only then its board is decided on', () => {
    const bench = display().send('wet', { indicator: 'tripped', text: 'fell into the dock' });
    const plan = ids(bench);
    expect(plan.slice(-4)).toEqual(['lift:cell', 'wash', 'air-dry', 'try']);
    expect(plan).not.toContain('run-down');
    expect(plan).not.toContain('agree');
    expect(plan.some((id) => id.startsWith('make:'))).toBe(false);
    // and what solvent went on is aired
    bench.until().until();
    expect(ids(bench)).toEqual([]);
    bench.send('damage', { kind: 'corrosion', face: 'front', x: 40, y: 60, part: 'lower-board' });
    expect(bench.send('decision', { about: 'wet', text: 'eaten through' }).problem).toContain('Keep it, or replace it');
    bench.send('decision', { about: 'wet', text: 'eaten through at the charger', board: 'replace' });
    // the upper board showed nothing
    expect(bench.state.targets).toEqual([{ replace: 'display' }, { replace: 'lower-board' }]);
    expect(ids(bench)).toContain('lift:lower-board');
    bench.until();
    expect(bench.send('finish', {}).problem).toBeNull();
  }, 30_000);

  it('keeps its board where it works, and goes on to what it came for', () => {
    const bench = display().send('wet', { indicator: 'clear', text: '' }).until();
    bench.send('decision', { about: 'wet', text: 'works', board: 'keep' });
    expect(bench.state.targets).toEqual([{ replace: 'display' }]);
    expect(ids(bench)).toContain('fit:display');
    bench.until();
    expect(bench.send('finish', {}).problem).toBeNull();
    expect(display().send('decision', { about: 'wet', text: 'x', board: 'keep' }).problem).toContain(
      'not taken in as wet',
    );
  });
});

describe('a cell transplant', () => {
  const gate = { lead: 'Maren', text: 'trained', charge: 0.2, confirmed: ['training', 'local rules', 'eyes', 'sand'] };
  const checked = ['polarity', 'pull test', 'insulation'];
  const bench = () => new TestBench(tern5(), [{ replace: 'cell' }]).prepare();

  it('is for the lead to allow, with its gate confirmed and the charge under the limit', () => {
    const asked = bench();
    expect(asked.send('policy', { change: { newBattery: 'cell-transplant' } }).problem).toContain('lead');
    expect(asked.send('transplant-allowed', { ...gate, confirmed: ['eyes'] }, 'Maren').problem).toContain(
      'training, local rules',
    );
    expect(asked.send('transplant-allowed', { ...gate, charge: 0.5 }, 'Maren').problem).toContain('30 %');
    expect(asked.send('transplant-allowed', gate).problem).toContain('for a lead to allow; Ines is none');
    asked.send('transplant-allowed', gate, 'Maren').send('policy', { change: { newBattery: 'cell-transplant' } });
    expect(asked.problem).toBeNull();
    expect(ids(asked)).toContain('transplant:cell');
  });

  it('is checked for polarity, matching voltages, pull and insulation before the pack goes in', () => {
    const asked = bench()
      .send('transplant-allowed', gate, 'Maren')
      .send('policy', { change: { newBattery: 'cell-transplant' } })
      .until('transplant:cell');
    const step = doneStep(asked.ahead()[0]!);
    expect(asked.send('did', { steps: [step] }).problem).toContain('its checks are recorded');
    const done = { old_V: 3.81, cells_V: [3.8, 3.82], checked };
    expect(asked.send('transplant-done', { ...done, checked: ['polarity'] }).problem).toContain('pull test');
    expect(asked.send('transplant-done', { ...done, cells_V: [3.7, 3.82] }).problem).toContain('differ by 0.120 V');
    expect(asked.send('transplant-done', { ...done, cells_V: [3.76, 3.81] }).problem).toBeNull();
    expect(ids(asked)).not.toContain('transplant:cell');
    asked.until();
    expect(asked.send('finish', {}).problem).toBeNull();
  }, 30_000);
});

describe('stops', () => {
  const swollen = { kind: 'swelling', face: 'front', x: 20, y: 60, part: 'cell' } as const;

  it('are facts: to take back what raised one does not lift it', () => {
    const bench = display().send('damage', swollen);
    expect(bench.state.stopped).toMatchObject({ reason: 'swelling', text: 'marked on Battery' });
    const [mark] = bench.state.damage;
    bench.send('undo', { event: bench.state.events.at(-1)!.id });
    expect(bench.state.damage).toEqual([]);
    expect(bench.state.stopped).toMatchObject({ id: mark!.id });
    bench.send('measure', { thickness_mm: 12 });
    bench.send('undo', { event: bench.state.events.at(-1)!.id });
    expect(bench.state.stops.map(({ reason }) => reason)).toEqual(['swelling', 'swelling']);
    expect(bench.state.measured).toEqual([]);
    expect(foldJob(bench.mechanism, bench.job, bench.state.events)).toEqual(bench.state);
  });

  it('hold side by side, and a lead clears each by itself, with a reason', () => {
    const bench = display().send('damage', swollen).send('stop', { reason: 'leak', text: 'wet at the port' });
    const [first, second] = bench.state.stops.map(({ id }) => id);
    expect(bench.state.stopped?.id).toBe(first);
    const clear = (data: object, by = 'Maren') => bench.send('clear', { text: 'looked at', ...data }, by).problem;
    expect(clear({})).toContain('2 stops hold (swelling, leak)');
    expect(clear({ stop: bench.state.job.id.padEnd(36, '0') })).toContain('No stop that holds');
    expect(clear({ stop: first }, 'Ines')).toContain('Ines is none');
    // a lead's name within the data decides nothing
    expect(clear({ stop: first, lead: 'Maren' }, 'Ines')).toContain('Ines is none');
    expect(clear({ stop: first })).toBeNull();
    expect(bench.state.stopped).toMatchObject({ id: second, reason: 'leak' });
    expect(bench.release('edge-screws').problem).toContain('Stopped (leak)');
    expect(clear({})).toBeNull();
    expect(bench.state.stopped).toBeNull();
    expect(bench.state.cleared).toMatchObject([
      { id: first, clearedBy: 'Maren', why: 'looked at' },
      { id: second, reason: 'leak' },
    ]);
    expect(clear({})).toContain('Nothing is stopped');
  });

  it('are not lifted by what is said to have happened anyway', () => {
    const bench = display().prepare().send('stop', { reason: 'smoke', text: '' });
    const steps = [{ id: 'release:edge-screws', kind: 'release', joint: 'edge-screws' }] as const;
    expect(bench.send('did', { steps, anyway: 'in a hurry' }).problem).toContain('Stopped (smoke)');
  });
});

describe('the gate judges what it is shown', () => {
  it('refuses the bare step, and what is missing of bench, charge and what was told', () => {
    const bench = display();
    const bare = { steps: [{ id: 'prepare', kind: 'procedure', name: 'prepare' }] } as const;
    expect(bench.send('did', bare).problem).toContain('not prepared by ticking');
    expect(bench.send('did', { ...bare, anyway: 'it is' }).problem).toContain('not prepared by ticking');
    const items = ['strap', 'eyes', 'sand', 'heat'];
    const needed = tern5()
      .parts.find(({ id }) => id === 'display')!
      .onReplace!.map(({ note }) => note);
    const shown = (change: object) =>
      display().send('prepared', { items, skipped: [], charge: 0.2, told: needed, ...change }).problem;
    expect(shown({})).toBeNull();
    expect(shown({ items: [] })).toContain('Strap on, on the grounded mat (strap)');
    expect(shown({ items: items.slice(1), skipped: [{ item: 'strap', reason: 'no socket here' }] })).toBeNull();
    expect(shown({ charge: undefined })).toContain('Nobody has read it');
    expect(shown({ charge: 0.8 })).toContain('below 25 %');
    expect(shown({ told: [] })).toContain('was not told');
    // what was recorded before counts as shown
    const before = display()
      .send('told', { items: needed, who: 'Aldis', how: 'here' })
      .send('charge', { charge: 0.2, source: 'typed' });
    expect(before.send('prepared', { items, skipped: [] }).problem).toBeNull();
    const decided = display().send('decision', { about: 'charge', text: 'Maren: the screen is dark' });
    expect(decided.send('prepared', { items, skipped: [], told: needed }).problem).toBeNull();
  });
});
