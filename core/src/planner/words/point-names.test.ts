import { expect, it } from 'vitest';
import { changed, tern5 } from '../../../test/maps.ts';
import { pointName, pointPlace } from './index.ts';

it('names a screw by where it is seen among its own and never by its id', () => {
  const map = tern5();
  const places = (joint: string) => {
    const found = map.joints.find(({ id }) => id === joint)!;
    return found.type === 'screw' ? found.points.map(({ id }) => pointPlace(map, joint, id)) : [];
  };
  expect(places('edge-screws')).toEqual(['left', 'right']);
  expect(places('connector-lid-screws').toSorted()).toEqual(['lower left', 'lower right', 'upper left', 'upper right']);
  expect(pointName(map, 'edge-screws', 'left')).toBe('left screw of Display');
  expect(pointName(map, 'edge-screws', 'x9')).toBe('screw of Display');
  // turned over, left is right
  const back = changed(map, (copy) => void (copy.joints.find(({ id }) => id === 'edge-screws')!.face = 'back'));
  expect(pointName(back, 'edge-screws', 'left')).toBe('right screw of Display');
  // one by itself is the screw; where several have one place they are counted
  expect(pointName(map, 'vibrator-screw', 'v')).toMatch(/^screw of Vibrator/);
  const close = changed(map, (copy) => {
    const screws = copy.joints.find(({ id }) => id === 'edge-screws') as unknown as { points: { x: number }[] };
    screws.points[1]!.x = screws.points[0]!.x + 2;
  });
  expect(pointName(close, 'edge-screws', 'left')).toMatch(/^middle screw [12] of Display$/);
});
