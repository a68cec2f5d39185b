import { describe, expect, it } from 'vitest';
import {
  bondOf,
  changed,
  demoMaps,
  gannetWorks,
  knotKeys,
  petrelGlass,
  shearwater11,
  tern5,
} from '../../../test/maps.ts';
import { plan } from '../../../test/played-plans.ts';
import { rearDevice } from '../../../test/rear-device.ts';
import { type DeviceMap, isOuter, seenEdge } from '../../model/device-map/index.ts';
import type { Op } from '../drafts/index.ts';
import type { Target } from '../search/index.ts';
import { EFFORT } from '../../../test/effort.ts';
import { randomMap } from '../../../test/random-map.ts';
import { applied, assembled, isDead, mechanismOf, numberedOp } from '../holds/index.ts';
import { checkDeviceMap } from '../map-check/index.ts';
import { edgeName, opWords, partName, whyNow } from './index.ts';
import { cautionFor } from './cautions.ts';

const opsOf = (map: DeviceMap, ...targets: Target[]): Op[] => {
  const { strip, rebuild } = plan(map, targets);
  return [...strip, ...rebuild];
};
const find = (ops: readonly Op[], id: string) => ops.find((op) => op.id === id)!;
const hint = (map: DeviceMap, ops: readonly Op[], id: string) => opWords(map, find(ops, id)).hint ?? '';
const why = (map: DeviceMap, ops: readonly Op[], id: string) =>
  whyNow(
    map,
    find(ops, id),
    ops.find((op) => op.id === find(ops, id).serves),
  );

describe('left and right', () => {
  it('are as the person sees the device: with its back up the left of the map is at the right', () => {
    const coil = { id: 'coil-plug', type: 'connector', style: 'press', holds: ['back'], to: 'board', face: 'back' };
    const map = changed(rearDevice({ joints: [{ ...coil, under: [{ part: 'back', until: 'open' }] }] }), (copy) => {
      copy.parts.find(({ id }) => id === 'back')!.opens = { edge: 'left', gap: 5, angle: 80 };
    });
    const ops = opsOf(map, { remove: 'board' });
    expect(hint(map, ops, 'open:back')).toMatch(/^The right edge stays down: .* may stand at 80°/);
    expect(hint(map, ops, 'fit:back')).toMatch(/^On its right edge, 80°/);
    const bond = bondOf(petrelGlass(), 'back-bond');
    const left = bond.segments!.find(({ from, to }) => from.x === to.x && from.x < petrelGlass().outline.width / 2)!;
    expect(edgeName(bond, left.id)).toContain('right');
  });

  it('of a slide go back the other way, and are turned over on the back', () => {
    const map = changed(knotKeys(), (copy) => {
      const clip = copy.joints.find(({ id }) => id === 'door-slide')!;
      if (clip.type === 'clip') clip.slide = { dx: 4, dy: 0 };
    });
    const ops = opsOf(map, { remove: 'cell' });
    expect(hint(map, ops, 'release:door-slide')).toContain('4 mm to the left, then lift.');
    expect(hint(map, ops, 'make:door-slide')).toContain('Slide it 4 mm to the right.');
  });
});

describe('a hint belongs to its own step', () => {
  it('of a lift to the lift, of a bond to the bond, of where to pry to what is pried first', () => {
    const map = changed(tern5(), (copy) => {
      copy.parts.find(({ id }) => id === 'cell')!.hint = { remove: 'It comes out flat.' };
      copy.joints.find(({ id }) => id === 'front-seal')!.hint = { release: 'A thin film first.' };
    });
    const ops = opsOf(map, { replace: 'cell' });
    const where = (words: string) => ops.filter((op) => opWords(map, op).hint?.includes(words)).map(({ id }) => id);
    expect(where('It comes out flat.')).toEqual(['lift:cell']);
    expect(where('A thin film first.')).toEqual(['release:front-seal']);
    // a cut begins where its edges say
    expect(where('Begin at its lower left.')).toEqual(['release:front-hooks']);
  });

  it('of what is fitted and closed in one is said once', () => {
    const ops = opsOf(gannetWorks(), { replace: 'board' });
    const said = ops.filter((op) => opWords(gannetWorks(), op).hint?.includes('under the rim'));
    expect(said.map(({ id }) => id)).toEqual(['fit:board']);
  });
});

describe('dead', () => {
  it('is said after the last lead only, and each lead has its caution', () => {
    const map = shearwater11();
    const ops = opsOf(map, { replace: 'board' });
    const leads = ops.filter(
      ({ kind, joint }) => kind === 'release' && ['left-end', 'right-end'].includes(joint ?? ''),
    );
    expect(leads.map(({ id }) => why(map, ops, id))).toEqual(['1 of 2 leads: still live.', 'Dead from here on.']);
    for (const op of leads) expect(cautionFor(map, op, false)).toContain('keep metal off its connector');
  });

  it('is not said again of a lead that is taken off a dead device', () => {
    const map = gannetWorks();
    const ops = opsOf(map, { replace: 'board' });
    expect(why(map, ops, 'release:jumper-plug')).toBe('Dead from here on.');
    expect(why(map, ops, 'release:cell-plug')).toBe('Main board still hangs on it.');
    expect(cautionFor(map, find(ops, 'release:jumper-plug'), false)).toBeNull();
  });
});

describe('what is often done half', () => {
  const tern = tern5();
  const ops = opsOf(tern, { replace: 'display' });

  it('says once a stage that only plastic comes near plugs, unless fine metal may', () => {
    const said = ops.filter((op) => opWords(tern, op).hint?.includes('Plastic only near boards and plugs'));
    expect(said.map(({ id }) => id)).toEqual(['release:cell-plug', 'make:light-plug']);
    const { strip } = plan(tern, [{ replace: 'display' }], { tools: 'fine-metal' });
    expect(strip.some(({ isPlasticOnly }) => isPlasticOnly)).toBe(false);
  });

  it('films the glass that it will lie on before the first screw', () => {
    const map = gannetWorks();
    const ids = opsOf(map, { replace: 'board' }).map(({ id }) => id as string);
    expect(ids.indexOf('film')).toBeGreaterThan(-1);
    expect(ids.indexOf('film')).toBeLessThan(ids.findIndex((id) => id.startsWith('release:') && id.includes('screw')));
  });

  it('has the place of what is only glued taken from the old one, and checked before it sets', () => {
    expect(hint(tern, ops, 'release:mesh-glue')).toContain('Take its place first');
    expect(hint(tern, ops, 'make:mesh-glue')).toContain('check it before it sets');
    expect(hint(tern, ops, 'release:bezel-clips')).not.toContain('Take its place');
  });

  it('says that what lies on its liner goes up once more', () => {
    const glass = opsOf(petrelGlass(), { replace: 'display' });
    expect(hint(petrelGlass(), glass, 'liner-off:front-bond')).toMatch(/^It lies on its liner: up once more/);
    expect(hint(tern, ops, 'liner-off:front-seal')).not.toContain('up once more');
  });

  it('pulls at what was soldered, feels a key by hand, and says what usually resists', () => {
    const board = opsOf(gannetWorks(), { replace: 'board' });
    expect(hint(gannetWorks(), board, 'make:earpiece-wires')).toContain('pull at it, gently');
    const keys = opsOf(gannetWorks(), { remove: 'keys' });
    expect(hint(gannetWorks(), keys, 'fit:keys')).toContain('it clicks and springs back');
    expect(hint(tern, ops, 'fit:tray')).toContain('it runs without force');
    expect(hint(tern, ops, 'close:display')).toContain('a bent clip, a flex beneath, a screw left');
  });
});

describe('left and right in a name', () => {
  it('are as the part is seen on its own face', () => {
    const named = demoMaps().flatMap((map) =>
      map.parts.flatMap(({ name, box, face }) => {
        const [side] = /\b(left|right)\b/i.exec(name) ?? [];
        const isLeft = box.x + box.w / 2 < map.outline.width / 2;
        return side ? [[name, side.toLowerCase(), seenEdge(isLeft ? 'left' : 'right', face)] as const] : [];
      }),
    );
    expect(named.length).toBeGreaterThan(10);
    expect(named.filter(([, said, seen]) => said !== seen)).toEqual([]);
  });
});

describe('what is easily overlooked', () => {
  it('is asked for by name before the part that it ties is lifted, once', () => {
    const map = gannetWorks();
    const ops = opsOf(map, { replace: 'board' });
    expect(hint(map, ops, 'lift:board')).toMatch(/Off by now: .*headset jack plug.*\?/);
    expect(hint(map, ops, 'lift:board')).toMatch(/right coax/);
    const asked = ops.filter((op) => opWords(map, op).hint?.includes('headset jack plug'));
    expect(asked).toHaveLength(1);
    expect(hint(map, ops, 'release:jack-plug')).not.toContain('overlooked');
  });
});

/** What is said of an operation that is not true of it, or of the state that it is said in. */
function untrue(map: DeviceMap, ops: readonly Op[]): string[] {
  const mechanism = mechanismOf(map);
  const cells = map.parts.filter(({ hazards }) => hazards?.includes('lithium')).map(({ id }) => partName(map, id));
  let state = assembled(mechanism);
  return ops.flatMap((op) => {
    const wasDead = isDead(mechanism, state);
    if (op.kind !== 'procedure') state = applied(mechanism, state, numberedOp(mechanism, { ...op, kind: op.kind }));
    const joint = map.joints.find(({ id }) => id === op.joint);
    const part = map.parts.find(({ id }) => id === op.part);
    const reason = whyNow(
      map,
      op,
      ops.find(({ id }) => id === op.serves),
    );
    const caution = cautionFor(map, op, wasDead) ?? '';
    const { title, thing, hint: more = '' } = opWords(map, op);
    const said = [caution, reason, title, thing, more].join(' | ');
    const isCut = joint?.type === 'bond' && (joint.segments ?? []).some(({ depth }) => depth !== undefined);
    const behind = /Behind it: ([^;]*); a cut into a cell/.exec(said)?.[1];
    const wrong: readonly (readonly [boolean, string])[] = [
      [reason === '' || title === '' || thing === '', 'an empty sentence'],
      [/undefined|NaN|\bnull\b/.test(said), 'nothing that is said'],
      [/click/.test(said) && joint?.type === 'connector' && !CLICKS.has(joint.style), 'a click at a latch'],
      [/deeper than the mark/.test(said) && !isCut, 'a depth where nothing is cut'],
      [behind !== undefined && !behind.split(', ').every((name) => cells.includes(name)), 'a cell that is none'],
      [/hangs on thin flexes/.test(said) && op.posture !== 'stands', 'it hangs on what is off'],
      [
        /It lies over/.test(reason) && part !== undefined && reason.endsWith(` ${partName(map, part.id)}.`),
        'over itself',
      ],
      [/still connected|connected again/.test(caution) && wasDead, 'connected, while it is dead'],
      [reason.startsWith('Dead from here on') && (wasDead || !isDead(mechanism, state)), 'dead before, or not yet'],
      [/still live/.test(reason) && isDead(mechanism, state), 'live, while it is dead'],
      [/Flush all round/.test(more) && !(joint?.type === 'bond' && joint.style === 'perimeter'), 'flush, with no seal'],
      [/against a block/.test(more) && part?.opens === undefined, 'a block for what does not stand'],
      [/the bin at once/.test(more) && part?.hazards?.includes('lithium') === true, 'a cell into the bin'],
      [/Plastic/.test(caution) && joint?.type === 'solder', 'plastic at an iron'],
      [/can vent/.test(caution) && op.face === null, 'a cell beneath what lies on the mat'],
    ];
    return wrong.flatMap(([is, what]) => (is ? [`${op.id}: ${what}: ${said}`] : []));
  });
}

const CLICKS: ReadonlySet<string> = new Set(['press', 'coax']);

describe('never at a thing it is not true of', () => {
  it('nothing that is said in any plan of the demo devices', () => {
    for (const map of demoMaps()) {
      const hinged = new Set(map.joints.flatMap((each) => (each.type === 'hinge' ? each.holds : [])));
      const targets = map.parts
        .filter(({ id }, at) => !hinged.has(id) && at % Math.round(1 / EFFORT) === 0)
        .map(({ id }): Target => ({ replace: id }));
      for (const target of [{ full: true } as const, ...targets]) {
        expect({ map: map.id, target, untrue: untrue(map, opsOf(map, target)) }).toEqual({
          map: map.id,
          target,
          untrue: [],
        });
      }
    }
  }, 60_000);

  it('nor in those of random maps', () => {
    for (let seed = 1; seed <= 80 * EFFORT; seed++) {
      const map = randomMap(seed, seed % 2 === 0);
      if (checkDeviceMap(map).errors.length > 0) continue;
      const ops = opsOf(map, { full: true });
      expect({ seed, untrue: untrue(map, ops) }).toEqual({ seed, untrue: [] });
    }
  }, 60_000);

  it('a cover that nothing ties is not propped up, and nothing is started first that never slept', () => {
    const map = rearDevice({ parts: [] });
    const opening = changed(map, (copy) => {
      copy.parts.find(({ id }) => id === 'back')!.opens = { edge: 'left', angle: 80 };
    });
    const said = opsOf(opening, { full: true }).filter(({ part }) => part === 'back');
    expect(
      said
        .map((op) => opWords(opening, op))
        .map(({ title, hint: more }) => `${title} ${more}`)
        .join(),
    ).not.toMatch(/block|Stand/);
    const woken = opsOf(petrelGlass(), { replace: 'back-glass' });
    expect(woken.some(({ name }) => name === 'power-on')).toBe(woken.some(({ lead }) => lead !== undefined));
  });

  it('getting in is over once it is open', () => {
    for (const map of demoMaps()) {
      const ops = opsOf(map, { full: true });
      const isOut = (op: Op) => map.parts.some((part) => part.id === op.part && isOuter(part) && !part.removeFirst);
      const opened = ops.findIndex((op) => (op.kind === 'open' || op.kind === 'lift') && isOut(op));
      const later = ops.slice(opened + 1).filter(({ stage }) => stage === 'open');
      expect({ map: map.id, later }).toEqual({ map: map.id, later: [] });
    }
  });
});
