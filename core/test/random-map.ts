import type { DeviceMap, Joint, Part, UnderEntry } from '../src/model/device-map/index.ts';

/** A small deterministic generator (mulberry32), so that a failing map can be made again from its seed. */
export function random(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

const KINDS: readonly Part['kind'][] = ['bracket', 'board', 'camera', 'speaker', 'flex', 'shield', 'lens', 'lead'];

/**
 * A made-up device: parts held to the base or to each other by every kind of joint, things lying over things, one lead
 * or two or a jumper or a battery that lifts out. Not every one can be taken apart; let the check decide.
 * @param rare hinges, gaskets and thermal material too
 */
export function randomMap(seed: number, rare = false): DeviceMap {
  const next = random(seed);
  const chance = (p: number) => next() < p;
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
  const size = 4 + Math.floor(next() * 7);
  const faces = ['front', 'front', 'front', 'back', 'edge'] as const;
  const parts: Part[] = [];
  const joints: Joint[] = [];
  const isolation = pick(['lead', 'lead', 'two-leads', 'jumper', 'lift-out', 'none'] as const);

  const entries = (own: number): UnderEntry[] => {
    const found: UnderEntry[] = [];
    for (let earlier = 1; earlier < own; earlier++) {
      if (chance(0.18)) found.push({ part: `p${earlier}`, until: chance(0.5) ? 'open' : 'off' });
    }
    return found;
  };
  const add = (joint: Joint) => joints.push(joint);

  parts.push(part('p0', 'frame', 'front', { base: true }));
  for (let own = 1; own <= size; own++) {
    const id = `p${own}`;
    const isCell = own === size || (isolation === 'two-leads' && own === size - 1);
    const kind = own === 1 ? 'display' : isCell ? 'battery' : pick(KINDS);
    const under = entries(own);
    parts.push(
      part(id, kind, pick(faces), {
        ...(under.length > 0 && chance(0.6) ? { under } : {}),
        ...(isCell ? { hazards: ['lithium'] } : {}),
        ...(chance(0.08) && !isCell ? { reuse: 'single-use' as const } : {}),
        ...(own === 2 && chance(0.3) ? { removeFirst: true } : {}),
      }),
    );
    const host = isCell || chance(0.6) ? 'p0' : `p${Math.floor(next() * own)}`;
    const joint = (type: string, number: number, to: string) => ({
      id: `${type}-${own}-${number}`,
      holds: [id],
      to,
      face: pick(faces),
      ...(under.length > 0 && chance(0.7)
        ? { under: under.filter((each) => !('part' in each) || each.part !== to) }
        : {}),
    });
    if (isCell && isolation === 'lift-out') {
      add({ ...bare(joint('seat', 1, 'p0')), type: 'seat' });
    } else {
      const mechanical = 1 + Math.floor(next() * 2);
      for (let number = 1; number <= mechanical; number++) {
        const common = joint('m', number, number === 1 ? host : chance(0.8) ? host : 'p0');
        const kindOfJoint = next();
        if (kindOfJoint < 0.45) {
          const second = own > 2 && chance(0.1) ? [`p${own - 1}`] : [];
          const holds = [id, ...second.filter((other) => other !== common.to)];
          add({
            ...common,
            holds,
            type: 'screw',
            fastener: pick(['s1', 's2']),
            points: [{ id: 'a', x: own, y: 1, depth: 4, below: 'metal' }],
          });
        } else if (kindOfJoint < 0.6) add({ ...common, type: 'clip' });
        else if (kindOfJoint < 0.75)
          add({
            ...common,
            type: 'bond',
            style: pick(['perimeter', 'pad', 'tape', 'strap'] as const),
            ...(chance(0.5) ? { heat: true } : {}),
          });
        else if (kindOfJoint < 0.9) add({ ...bare(common), type: 'seat' });
        else if (rare) add({ ...bare(common), type: 'bond', style: pick(['gasket', 'thermal'] as const) });
        else add({ ...common, type: 'bond', style: 'pad' });
      }
    }
    const tethers = isCell ? 0 : Math.floor(next() * 2.4);
    for (let number = 1; number <= tethers; number++) {
      const to = pick(parts.filter((each) => each.id !== id && each.kind !== 'battery')).id;
      const common = joint('t', number, to);
      if (rare && chance(0.12)) add({ ...bare(common), type: 'hinge', edge: 'left' });
      else if (chance(0.08)) add({ ...common, type: 'solder', points: [{ id: 'w', x: 1, y: 1 }] });
      else if (chance(0.15)) add({ ...bare(common), type: 'connector', style: 'spring' });
      else add({ ...common, type: 'connector', style: pick(['press', 'zif-flip', 'coax'] as const) });
    }
    if (isCell && isolation !== 'lift-out' && isolation !== 'none') {
      const isolates = isolation === 'jumper' ? 'alone' : true;
      add({ ...joint('lead', 1, 'p0'), type: 'connector', style: 'press', isolates });
    }
  }
  return {
    format: 'nibrel.device-map',
    version: 1,
    id: `random-${seed}`,
    name: `Random ${seed}`,
    kind: 'other',
    outline: { width: 70, height: 140, thickness: 8, corner: 5 },
    battery:
      isolation === 'none'
        ? null
        : { part: `p${size}`, cells: [{ capacity_mAh: 3000, nominal_V: 3.8 }], wiring: 'parallel', limit_C: 60 },
    fasteners: ['s1', 's2'].map((id, index) => ({
      id,
      drive: `T${2 + index}`,
      thread: 'M1.2x0.25',
      length: 2 + index,
      head: 2,
    })),
    parts,
    joints,
    functions: [],
  };
}

function bare<T extends { under?: readonly UnderEntry[] }>(joint: T): Omit<T, 'under'> {
  const { under: _, ...rest } = joint;
  return rest;
}

function part(id: string, kind: Part['kind'], face: Part['face'], more: Partial<Part>): Part {
  return { id, name: id, kind, face, box: { x: 0, y: 0, w: 10, h: 10 }, z: { top: 1, bottom: 2 }, ...more };
}
