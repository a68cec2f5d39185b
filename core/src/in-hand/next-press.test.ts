import { describe, expect, it } from 'vitest';
import { TestBench } from '../../test/bench.ts';
import { Led } from '../../test/led.ts';
import { bondOf, dunlinOpen, petrelGlass, tern5 } from '../../test/maps.ts';
import type { DeviceMap } from '../device-map/index.ts';
import { foresee, settingFor } from '../heat/index.ts';
import { lastWarmed } from '../job/index.ts';
import { edgeInHand } from './edge-in-hand.ts';
import { sourceFor } from './to-warm.ts';
import { type AtHand, cutInHand, nextPress } from './next-press.ts';
import { afterwards, bondBasis, coolingBond, heatingBond, type WarmBond, whileOn } from './warm-bond.ts';

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
function warm(bench: TestBench): WarmBond {
  const bond = seal();
  const { opening } = bench.state;
  const basis = bondBasis(tern5(), bond, bench.state, undefined);
  const { heating } = opening;
  if (heating) {
    const foresight = foresee(whileOn(basis, heating, heating.setting));
    return heatingBond(heating, basis.soften_C, heating.setting, null, { foresight, problem: null }, null, bench.now);
  }
  const warmed = lastWarmed(opening, bond.id) ?? null;
  const foresight = warmed && foresee(afterwards(basis, warmed));
  return coolingBond(warmed, basis.soften_C, { foresight, problem: null }, null, 40, bench.now);
}

/** Refused while the bond is warm: then it is left to cool. */
const SOLVENT = 'Source off and away, solvent on';

/** A repair by nothing but Space, W while it waits, and the answers that the preparation asks for. */
function bySpace(map: DeviceMap, part: string): { readonly labels: readonly string[]; readonly bench: TestBench } {
  const bench = new TestBench(map, [{ replace: part }]);
  const led = new Led(bench);
  const labels: string[] = [];
  for (let n = 0; n < 600 && !bench.state.finished; n++) {
    const bond = map.joints.find(({ id }) => id === led.ahead().ops[0]?.joint);
    const unforeseen = { on: null, off: null, bond_C: null, soften_C: 60, problem: 'not foreseen' };
    const { heating } = bench.state.opening;
    const on = heating && { elapsed_s: 300, clock: null, foresight: null, fit: null, setting, workingNow_s: null };
    const atHand = {
      warm: { ...unforeseen, on },
      setting: bond?.type === 'bond' ? settingFor(bond, null) : null,
    };
    const next = nextPress(bench.mechanism, bench.state, led.ahead(), bench.now, atHand);
    labels.push(next.label);
    if (next.does.kind === 'go') led.next();
    else if (!next.isAllowed) bench.wait(60);
    else if (pressed(bench, atHand, next).problem && next.label === SOLVENT) bench.wait(600);
    else expect(bench.problem, next.label).toBeNull();
  }
  return { labels, bench };
}

describe('the next press', () => {
  it('leads from a closed device to its record by itself, and everything it says is taken', () => {
    for (const [map, part] of [
      [tern5(), 'cell'],
      [petrelGlass(), petrelGlass().battery!.part],
      [dunlinOpen(), 'port-board'],
    ] as const) {
      const { labels, bench } = bySpace(map, part);
      expect(bench.state.finished, map.id).not.toBeNull();
      expect(labels).toContain('To the preparation');
      expect(labels.at(-1)).toBe('Finish, to the record');
      expect(labels.every((label) => label.length > 2 && !/undefined|NaN/.test(label))).toBe(true);
    }
  }, 60_000);

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
    expect(press(bench, {}, 3600)).toMatchObject({ label: 'Time is up, done', isAllowed: true });
  });

  it('puts the source on as it is set up, and takes it off once the bond is soft for certain', () => {
    const bench = atTheSeal();
    expect(press(bench)).toMatchObject({ label: 'Source is on', isAllowed: false });
    expect(pressed(bench, { setting, bench: 'west' })).toMatchObject({ label: 'Source is on', problem: null });
    expect(bench.state.opening.heating).toMatchObject({ joint: 'front-seal', setting, bench: 'west' });
    bench.wait(20);
    expect(press(bench, { warm: warm(bench) })).toMatchObject({ label: 'Waiting for it to soften', isAllowed: false });
    const { toSoft_s } = warm(bench).on!.clock!;
    bench.wait(Math.ceil(toSoft_s!) + 1);
    expect(pressed(bench, { warm: warm(bench) })).toMatchObject({ label: 'Source is off and away', problem: null });
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
    expect(edgeInHand(bench.state, seal(), cut, warm(bench))).toMatchObject({ left_s: 0, isStiff: false });
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
    expect(bench.state.standing.filter(({ type }) => type === 'heat-on')).toHaveLength(1);
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
    const at = (bond_C: number) => ({ ...warm(bench), bond_C: { low: bond_C, likely: bond_C, high: bond_C } });
    const stiff = (bond_C: number, dragBelow_C?: number) =>
      edgeInHand(bench.state, { ...seal(), dragBelow_C }, cut, at(bond_C))!.isStiff;
    const { soften_C } = warm(bench);
    expect([stiff(soften_C - 19), stiff(soften_C - 21)]).toEqual([false, true]);
    expect([stiff(soften_C - 19, soften_C - 5), stiff(soften_C - 4, soften_C - 5)]).toEqual([true, false]);
  });

  it('never chooses a source that does not get as hot as the bond softens', () => {
    const bench = atTheSeal();
    const [op] = bench.ahead();
    expect(sourceFor(bench.state, seal(), op)).toBe('plate');
    // a plate stands at 70 °C
    const stubborn = { ...seal(), soften_C: 75, recipe: undefined };
    expect(sourceFor(bench.state, stubborn, op)).toBe('air');
    // where none does, what was wished for is left to see why not
    expect(sourceFor(bench.state, { ...stubborn, soften_C: 400 }, op)).toBe('plate');
  });

  it('answers the function that is tried next, by its name', () => {
    const bench = new TestBench(dunlinOpen(), [{ replace: 'port-board' }]).until('test:after');
    const [test] = bench.ahead();
    const names = test!.functions!.map((id) => dunlinOpen().functions.find((each) => each.id === id)!.name);
    expect(names.map(() => pressed(bench).label)).toEqual(names.map((name) => `${name} works`));
    expect(press(bench).label).toBe('All tried');
  });
});
