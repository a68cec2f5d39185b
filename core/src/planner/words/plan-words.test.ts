import { describe, expect, it } from 'vitest';
import { sampled } from '../../../test/effort.ts';
import { bondOf, changed, demoMaps, petrelGlass, shearwater11, tern5 } from '../../../test/maps.ts';
import { plan } from '../../../test/played-plans.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { bitMark, edgeName, jointWords, opWords, partName, whyNow } from './index.ts';

function targetsOf(map: DeviceMap) {
  const hinged = new Set(map.joints.flatMap((each) => (each.type === 'hinge' ? [...each.holds, each.to] : [])));
  const parts = map.parts.filter(({ id, base }) => base || !hinged.has(id));
  return parts.map(({ id, base }) => (base ? { full: true as const } : { replace: id }));
}

describe('the words of a plan', () => {
  it('are never the same twice, for any part of any device', () => {
    for (const map of demoMaps()) {
      for (const target of sampled(targetsOf(map))) {
        const { strip, rebuild } = plan(map, [target]);
        const said = [...strip, ...rebuild].map((op) => {
          const { title, thing } = opWords(map, op);
          return `${title} · ${thing}`;
        });
        const twice = said.filter((each, at) => said.indexOf(each) !== at);
        expect({ map: map.id, target, twice }).toEqual({ map: map.id, target, twice: [] });
      }
    }
  }, 60_000);

  it('call a plug by what it serves, and the two ends of a lead by where they go', () => {
    const off = (map: DeviceMap, id: string) => jointWords(map, id).off;
    expect(off(tern5(), 'touch-plug').title).toBe('Unplug the touch flex');
    expect(off(tern5(), 'cell-plug').title).toBe('Unplug the battery');
    expect(off(petrelGlass(), 'left-plug').title).toBe('Unplug the right cell');
    expect(off(tern5(), 'lead-board-end')).toEqual({
      title: 'Antenna coax off',
      thing: 'Straight up, no twisting, at Lower board',
    });
    expect(off(shearwater11(), 'port-end').thing).not.toBe(off(shearwater11(), 'port-plug').thing);
  });

  it('tell parts of one name apart by where they are', () => {
    const map = changed(tern5(), (copy) => {
      const cameras = copy.parts.filter(({ kind }) => kind === 'camera');
      for (const each of cameras) each.name = 'Camera';
    });
    const names = map.parts.filter(({ kind }) => kind === 'camera').map(({ id }) => partName(map, id));
    expect(new Set(names).size).toBe(names.length);
    expect(names.every((name) => name.startsWith('Camera, ') || /^Camera \d$/.test(name))).toBe(true);
  });

  it('name an edge by where it runs, whatever its id', () => {
    const plain = changed(shearwater11(), (copy) => {
      const bond = copy.joints.find(({ id }) => id === 'front-bond');
      if (bond?.type === 'bond')
        Object.assign(bond, { segments: bond.segments!.map((each, index) => ({ ...each, id: `s${index}` })) });
    });
    const names = bondOf(plain, 'front-bond').segments!.map(({ id }) => edgeName(bondOf(plain, 'front-bond'), id));
    expect(names.toSorted()).toEqual(['bottom', 'lower left', 'lower right', 'top', 'upper left', 'upper right']);
    // a back is seen turned over: the map's left is its right
    const back = bondOf(petrelGlass(), 'back-bond');
    const right = back.segments!.find(({ from, to }) => from.x === to.x && from.x > petrelGlass().outline.width / 2)!;
    expect(edgeName(back, right.id)).toBe('left');
  });

  it('say of what stays open how it stands, and how it closes only when it closes', () => {
    const map = tern5();
    const { strip, rebuild } = plan(map, [{ replace: 'display' }]);
    const words = (id: string) =>
      opWords(
        map,
        [...strip, ...rebuild].find((op) => op.id === id)!,
      );
    expect(words('fit:display')).toMatchObject({ title: 'Stand the new one up' });
    expect(words('fit:display').hint).toMatch(/against a block; do not lower it/);
    expect(words('close:display').hint).toMatch(
      /^Block away. Its right edge down first, then lower the rest. If it resists: a bent clip/,
    );
    expect(words('lift:display').title).toBe('Lift the old one off');
  });

  it('say what is to be known of a part with what moves it first, once', () => {
    const map = changed(tern5(), (copy) => {
      copy.parts.find(({ id }) => id === 'connector-lid')!.hint = { remove: 'Slide it a little first.' };
    });
    const { strip } = plan(map, [{ replace: 'display' }]);
    const hinted = strip.filter((op) => opWords(map, op).hint?.includes('Slide it a little first.'));
    expect(hinted.map(({ id }) => id)).toEqual(['lift:connector-lid']);
  });

  it('say why in one short sentence', () => {
    const map = tern5();
    const { strip, rebuild } = plan(map, [{ replace: 'display' }]);
    const all = [...strip, ...rebuild];
    const why = (id: string) => {
      const op = all.find((each) => each.id === id)!;
      return whyNow(
        map,
        op,
        all.find((each) => each.id === op.serves),
      );
    };
    expect(why('release:connector-lid-screws')).toBe('It holds Connector lid.');
    expect(why('lift:connector-lid')).toMatch(/^It lies over the /);
    expect(why('release:cell-plug')).toBe('Dead from here on.');
    expect(why('lift:display')).toBe('A new one goes in for it.');
    for (const op of all) expect(why(op.id), op.id).not.toMatch(/Needed|After:|\n/);
  });
});

describe('a bit', () => {
  it('is called by what is stamped on it, for the eye only', () => {
    expect(['five-lobe 0.8', 'tri-point 0.6', 'six-lobe-plus 3', 'PH000', 'T3'].map(bitMark)).toEqual([
      'P2',
      'Y000',
      'IP3',
      'PH000',
      'T3',
    ]);
    expect(bitMark('warming plate')).toBe('warming plate');
  });
});
