import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { Led } from '../../../test/led.ts';
import { bondOf, changed, dunlinOpen, tern5 } from '../../../test/maps.ts';
import type { BondJoint, BondStack } from '../../model/device-map/index.ts';
import { foresee, settingFor, usualSetting } from '../../physics/heat/index.ts';
import { lastWarmed } from '../../job/state/index.ts';
import { edgeInHand } from './edge-in-hand.ts';
import { sourceFor, verdictOn } from './source-for.ts';
import { cutInHand } from './cut-in-hand.ts';
import { nextPress } from './next-press.ts';
import type { AtHand, Does } from './one-press.ts';
import { afterwards, bondBasis, coolingBond, heatingBond, type WarmBond, whileOn, yieldsOf } from './warm-bond.ts';

const seal = () => bondOf(tern5(), 'front-seal');
const press = (bench: TestBench, atHand: AtHand = {}, later_s = 0) =>
  nextPress(bench.mechanism, bench.state, new Led(bench).ahead(), bench.now + later_s * 1000, atHand);

/** Does what the press says, as far as it is taken. */
function pressed(bench: TestBench, atHand: AtHand = {}, { label, isAllowed, does } = press(bench, atHand)) {
  for (const { type, data } of isAllowed && does.kind === 'say' ? does.events : []) {
    if (bench.send(type, data as never).problem) break;
  }
  return { label, isAllowed, does, problem: bench.problem };
}

/** Tern 5 with its front seal next. */
const atTheSeal = () => new TestBench(tern5(), [{ replace: 'display' }]).until('heat:front-seal');
const setting = settingFor(seal(), 'plate');

/** The front seal as it is foreseen with its source on for so long, or off again. */
function warm(bench: TestBench, told: readonly number[] = []): WarmBond {
  const bond = seal();
  const yields = yieldsOf(bench.state, bond, told);
  const { opening } = bench.state;
  const basis = bondBasis(tern5(), bond, bench.state, undefined);
  const { heating } = opening;
  if (heating) {
    const foresight = foresee(whileOn(basis, heating, heating.setting));
    return heatingBond(heating, yields, heating.setting, null, { foresight, problem: null }, null, bench.now);
  }
  const warmed = lastWarmed(opening, bond.id) ?? null;
  const foresight = warmed && foresee(afterwards(basis, warmed));
  return coolingBond(warmed, yields, { foresight, problem: null }, null, 40, bench.now);
}

describe('the next press', () => {
  it('is none while it is planned, and none while a job is stopped or ended', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]);
    expect(nextPress(bench.mechanism, bench.state, null, bench.now)).toMatchObject({ label: '', isAllowed: false });
    bench.send('stop', { reason: 'swelling', text: '' });
    expect(press(bench)).toMatchObject({ isAllowed: false, does: { kind: 'nothing' } });
    bench.send('clear', { text: 'flat again' }, 'Maren').send('end', { text: 'sold' }, 'Maren');
    expect(press(bench)).toMatchObject({ isAllowed: false, does: { kind: 'nothing' } });
  });

  it('waits for a clock, unless the wait is ended', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('dry:front-seal');
    expect(pressed(bench)).toMatchObject({ label: 'Run the clock', problem: null });
    const waiting = press(bench);
    expect(waiting).toMatchObject({ label: 'Waiting', isAllowed: false });
    expect(waiting.endsWait).toMatchObject({ events: [{ type: 'did' }] });
    // what the clock ran for is done with what comes straight after it
    const over = press(bench, {}, 3600);
    expect(over).toMatchObject({ label: 'Done', isAllowed: true });
    expect(over.ops.map(({ id }) => id)).toEqual(['dry:front-seal', 'lay:front-seal']);
  });

  it('is the source that does, where the chosen one never softens the bond; that one all the same', () => {
    const bench = atTheSeal();
    const cold = usualSetting('pack', 45);
    const settings = (does: Does | undefined) =>
      does?.kind === 'say' ? does.events.map(({ type, data }) => [type, (data as { setting?: object }).setting]) : [];
    const next = press(bench, { setting: cold, hopeless: { instead: setting } });
    expect(next).toMatchObject({ label: 'Heat on, warming plate', isAllowed: true });
    expect(settings(next.does)).toEqual([['heat-on', setting]]);
    expect(settings(next.allTheSame)).toEqual([['heat-on', cold]]);
    // where none does, nothing is on Space
    expect(press(bench, { setting: cold, hopeless: { instead: null } })).toMatchObject({ label: '', isAllowed: false });
    // and where it is on already, it is changed
    pressed(bench, { setting: cold });
    bench.wait(30);
    const change = press(bench, { warm: warm(bench), hopeless: { instead: setting } });
    expect(change).toMatchObject({ label: 'Change to the warming plate', isAllowed: true });
    expect(settings(change.does)).toEqual([
      ['heat-off', undefined],
      ['heat-on', setting],
    ]);
  });

  it('puts the source on as it is set up, and takes it off once the bond is soft for certain', () => {
    const bench = atTheSeal();
    expect(press(bench)).toMatchObject({ label: 'Heat on', isAllowed: false });
    expect(pressed(bench, { setting, bench: 'west' })).toMatchObject({ label: 'Heat on', problem: null });
    expect(bench.state.opening.heating).toMatchObject({ joint: 'front-seal', setting, bench: 'west' });
    bench.wait(20);
    expect(press(bench, { warm: warm(bench) })).toMatchObject({ label: 'Waiting for it to soften', isAllowed: false });
    const { toSoft_s } = warm(bench).on!.clock!;
    bench.wait(Math.ceil(toSoft_s!) + 1);
    expect(pressed(bench, { warm: warm(bench) })).toMatchObject({ label: 'Heat off', problem: null });
    expect(bench.state.opening.heating).toBeNull();
  });

  it('cuts edge by edge by Space alone, however cool it is; heating again has a key of its own', () => {
    const bench = atTheSeal();
    pressed(bench, { setting });
    bench.wait(Math.ceil(warm(bench).on!.clock!.toSoft_s!) + 1);
    pressed(bench, { warm: warm(bench) });
    const soft = warm(bench);
    const cut = cutInHand(tern5(), bench.state, seal(), soft)!;
    expect(edgeInHand(bench.state, seal(), cut, soft)).toMatchObject({ isStiff: false });
    const first = pressed(bench, { warm: soft, setting });
    expect(first.label).toMatch(/ is cut$/);
    expect(bench.state.opening.cut.get('front-seal')?.size).toBe(1);
    // no longer soft, but the seam is open: it is cut on
    bench.wait(Math.ceil(soft.off!.working_s!));
    const open = edgeInHand(bench.state, seal(), cut, warm(bench))!;
    expect(open).toMatchObject({ isFirstGap: false, isStiff: false });
    expect(open.left_s!).toBeGreaterThan(60);
    // cold it is stiff, and that is said; Space still ticks the edge in hand
    bench.wait(3600);
    const cold = warm(bench);
    expect(edgeInHand(bench.state, seal(), cut, cold)).toMatchObject({ isStiff: true });
    const next = press(bench, { warm: cold, setting });
    expect(next.label).toMatch(/ is cut$/);
    expect(next.heatAgain).toMatchObject({ kind: 'say', events: [{ type: 'heat-on' }] });
    // warmed once, a pedal goes all round and starts no second heating
    while (bench.ahead()[0]!.id === 'release:front-seal')
      expect(pressed(bench, { warm: cold, setting }).problem).toBeNull();
    expect(bench.state.inForce.filter(({ type }) => type === 'heat-on')).toHaveLength(1);
    expect(bench.state.opening.heating).toBeNull();
  });

  it('first softens for the first gap, and drags where the map says so', () => {
    const bench = atTheSeal();
    pressed(bench, { setting });
    bench.wait(Math.ceil(warm(bench).on!.clock!.toSoft_s!) + 1);
    pressed(bench, { warm: warm(bench) });
    bench.wait(3600);
    const cut = cutInHand(tern5(), bench.state, seal(), warm(bench))!;
    expect(edgeInHand(bench.state, seal(), cut, warm(bench))).toMatchObject({ isStiff: true });
    const open = pressed(bench, { warm: warm(bench), setting });
    expect(open.label).toMatch(/ is cut$/);
    // it drags once it has fallen below what the map says; where that says nothing, below a guess
    const after = lastWarmed(bench.state.opening, 'front-seal')!;
    const cooling = (later_s: number, bond: Pick<BondJoint, 'dragBelow_C'> = {}, told: readonly number[] = []) => {
      const basis = bondBasis(tern5(), seal(), bench.state, undefined);
      const foresight = foresee(afterwards(basis, after));
      const yields = yieldsOf(bench.state, { ...seal(), ...bond }, told);
      const now = Date.parse(after.offAt) + later_s * 1000;
      return coolingBond(after, yields, { foresight, problem: null }, null, 40, now);
    };
    const stiff = (...given: Parameters<typeof cooling>) =>
      edgeInHand(bench.state, seal(), cut, cooling(...given))!.isStiff;
    const { drags_s } = cooling(0, { dragBelow_C: 50 }).off!;
    expect(drags_s!).toBeGreaterThan(0);
    expect([stiff(drags_s! - 2, { dragBelow_C: 50 }), stiff(drags_s! + 1, { dragBelow_C: 50 })]).toEqual([false, true]);
    expect(stiff(drags_s! + 1)).toBe(false);
    // what was felt here goes before the map
    expect(stiff(drags_s! + 1, { dragBelow_C: 50 }, [41, 43, 42])).toBe(false);
    expect(stiff(drags_s! + 1, { dragBelow_C: 30 }, [52, 53])).toBe(true);
  });

  it('records where the seam drags, warms it next, and teaches the workshop', () => {
    const bench = atTheSeal();
    pressed(bench, { setting });
    bench.wait(Math.ceil(warm(bench).on!.clock!.toSoft_s!) + 1);
    pressed(bench, { warm: warm(bench) });
    // nothing is open yet: that is no drag to learn from
    expect(press(bench, { warm: warm(bench), setting }).drags).not.toHaveProperty('teaches');
    pressed(bench, { warm: warm(bench), setting });
    bench.wait(200);
    const bond_C = Math.round(warm(bench).bond_C!.likely * 10) / 10;
    const { drags } = press(bench, { warm: warm(bench), setting });
    expect(drags).toMatchObject({
      events: [{ type: 'trouble', data: { kind: 'drags', joint: 'front-seal', segment: 'left', bond_C } }],
      teaches: { type: 'drag', data: { map: 'tern-5', joint: 'front-seal', temp_C: bond_C } },
    });
    pressed(bench, {}, { label: '', isAllowed: true, does: drags!, ops: [], endsWait: null });
    expect(bench.problem).toBeNull();
    // now it is a planned warming, which Space takes; what was cut stays cut
    expect(press(bench, { warm: warm(bench), setting }).label).toBe('Heat on');
    pressed(bench, { warm: warm(bench), setting });
    bench.wait(200);
    pressed(bench, { warm: warm(bench) });
    expect(press(bench, { warm: warm(bench), setting }).label).toBe('Left is cut');
    expect(bench.send('trouble', { kind: 'drags', text: '', joint: 'lid-screws' }).problem).toContain('joint');
    const nowhere = { kind: 'drags', text: '', joint: 'front-seal', segment: 'middle' } as const;
    expect(bench.send('trouble', nowhere).problem).toContain('segment');
  });

  it('soaks what will not lift where that is asked for', () => {
    const bench = atTheSeal();
    pressed(bench, { setting });
    bench.wait(400);
    pressed(bench, { warm: warm(bench) });
    bench.send('trouble', { kind: 'will-not-lift', text: '', joint: 'front-seal', next: 'solvent' });
    expect(bench.problem).toBeNull();
    expect(bench.ahead()[0]!.id).toBe('soak:front-seal');
    expect(press(bench, { warm: warm(bench) }).label).toMatch(/^Too warm for solvent/);
  });

  it('never chooses a source that does not get as hot as the bond softens', () => {
    const bench = atTheSeal();
    const [op] = bench.ahead();
    expect(sourceFor(tern5(), bench.state, seal(), op)).toBe('plate');
    // a plate stands at 70 °C
    const stubborn = { ...seal(), soften_C: 75, recipe: undefined };
    expect(sourceFor(tern5(), bench.state, stubborn, op)).toBe('pack');
    // where none does, what was wished for is left to see why not
    expect(sourceFor(tern5(), bench.state, { ...stubborn, soften_C: 400 }, op)).toBe('plate');
    expect(verdictOn(tern5(), stubborn, 75, setting)).toEqual({ kind: 'never' });
  });

  it('never chooses a source that brings a cell to its limit before the bond is soft', () => {
    const bench = atTheSeal();
    const [op] = bench.ahead();
    // a cell that is heated through before the bond behind it
    const map = changed(tern5(), (copy) => {
      const bond = copy.joints.find(({ id }) => id === 'front-seal') as { stack?: BondStack };
      bond.stack = {
        layers: [
          { material: 'pouch cell', thickness: 3 },
          { material: 'acrylic foam tape', thickness: 0.3 },
          { material: 'aluminium alloy', thickness: 1 },
        ],
        bondLayer: 1,
        watch: [{ what: 'Cell', layer: 0, fraction: 0, max_C: 60 }],
      };
    });
    const bond = bondOf(map, 'front-seal');
    const hot = verdictOn(map, bond, bond.soften_C!, settingFor(bond, 'plate'));
    expect(hot).toEqual({ kind: 'limit', what: 'Cell', max_C: 60 });
    expect(sourceFor(map, bench.state, bond, op)).not.toBe('plate');
  });

  it('holds a failed test in hand, with its step in sight, until it works', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('test:before');
    const [test] = bench.ahead();
    for (const id of test!.functions!)
      bench.send('test', { function: id, result: id === 'touch' ? 'fails' : 'works', stage: 'before' });
    const held = press(bench);
    expect(held).toMatchObject({ isAllowed: false, does: { kind: 'nothing' } });
    expect(held.label).toContain('Touch fails');
    expect(held.ops.map(({ id }) => id)).toEqual(['test:before']);
    bench.send('test', { function: 'touch', result: 'works', stage: 'before' });
    expect(press(bench)).toMatchObject({ label: 'All tried', isAllowed: true });
  });

  it('answers the function that is tried next, by its name', () => {
    const bench = new TestBench(dunlinOpen(), [{ replace: 'port-board' }]).until('test:before');
    const [test] = bench.ahead();
    const names = test!.functions!.map((id) => dunlinOpen().functions.find((each) => each.id === id)!.name);
    expect(names.map(() => pressed(bench).label)).toEqual(names.map((name) => `${name} works`));
    // with the last answer the test is through
    expect(bench.ahead()[0]?.id).not.toBe('test:before');
  });
});
