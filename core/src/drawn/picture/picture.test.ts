import { describe, expect, it } from 'vitest';
import { Answering } from '../../../test/answering.ts';
import { TestBench } from '../../../test/bench.ts';
import { demoMaps } from '../../../test/maps.ts';
import { type DeviceMap, jointById, partById, type Point } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { opWords } from '../../planner/words/index.ts';
import { mainSide, onSide, placesOf, ringOf, type Ring, type Side } from '../places/index.ts';
import { faceOf } from '../shown/index.ts';
import { movesOf } from './part-moves.ts';
import { type Drawn, type Picture, pictureOf } from './picture.ts';
import { stepPicture } from './of-step.ts';
import type { Label } from './placed-names.ts';

const SIZES = [
  { width: 640, height: 620 },
  { width: 796, height: 560 },
] as const;

const sideOf = (map: DeviceMap, op: Op | undefined): Side => {
  const face = op && faceOf(map, op);
  return face === 'front' || face === 'back' ? face : mainSide(map);
};

/** A crossing test, apart from the package that the names are placed with. */
function isInside(ring: Ring, { x, y }: Point): boolean {
  let inside = false;
  ring.forEach(([ax, ay], at) => {
    const [bx, by] = ring[(at + 1) % ring.length]!;
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  });
  return inside;
}

/** Places all over a label, its corners too, a hair's breadth inside. */
function within({ box }: Label): Point[] {
  const shares = [0.001, 0.25, 0.5, 0.75, 0.999];
  return shares.flatMap((sx) => shares.map((sy) => ({ x: box.x + box.w * sx, y: box.y + box.h * sy })));
}

/** Is the thing of a line to be seen on this side of what is drawn? */
function isPlaced({ map, side, gone, standing = [] }: Drawn, at: string | null): boolean {
  const joint = jointById(map, at ?? undefined);
  if (joint) return joint.face === side || joint.face === 'edge';
  const part = partById(map, at ?? undefined);
  const isOpen = standing.some((each) => each.part === part?.id);
  return (
    part !== undefined && !part.base && (part.face === side || part.face === 'edge' || isOpen) && !gone?.has(part.id)
  );
}

/** Do its words tell left and right as they are seen on the other face than the one that is drawn? */
function isMirrored(map: DeviceMap, { side }: Drawn, op: Op): boolean {
  const { title, thing, hint = '' } = opWords(map, op);
  const said = /(left|right|top|bottom) edge stays down/.exec(hint)?.[1];
  const drawn = movesOf(map, side, [op]).find(({ kind }) => kind === 'tilt');
  if (said && drawn?.kind === 'tilt' && drawn.edge !== said) return true;
  if (op.kind === 'procedure' || !/\b(left|right)\b/.test(`${title} ${thing} ${hint}`)) return false;
  const face = jointById(map, op.joint)?.face ?? partById(map, op.part)?.face;
  return face !== 'edge' && face !== side;
}

/** What is wrong with the names of a picture. */
function wrong(drawn: Drawn, picture: Picture): string[] {
  const { map, side, marked } = drawn;
  const shapes = [
    ...picture.standing.map(({ part, ring }) => ({ id: part, ring })),
    ...picture.parts.toReversed().map((part) => ({ id: part.id, ring: ringOf(map, side, part) })),
  ];
  const joints = [...(marked ?? [])].flatMap((id) => {
    const joint = jointById(map, id);
    return joint ? placesOf(map, joint).map(({ x, y }) => ({ x: onSide(map, side, x), y })) : [];
  });
  const view = picture.close ?? picture.whole;
  return picture.labels.flatMap((label, at) => {
    if (label.name === '') return [];
    const own = shapes.findIndex(({ id }) => id === label.id);
    const over = shapes.slice(0, own);
    const places = within(label);
    const { x, y, w, h } = label.box;
    const isOver = (place: Point) => place.x > x && place.x < x + w && place.y > y && place.y < y + h;
    const told = (what: string) => `${label.name}: ${what}`;
    return [
      ...(isInside(shapes[own]!.ring, label.at) ? [] : [told('its middle is outside of its part')]),
      ...(places.every((place) => isInside(shapes[own]!.ring, place)) ? [] : [told('it leaves its part')]),
      ...over.flatMap(({ id, ring }) =>
        places.some((place) => isInside(ring, place)) ? [told(`${id} lies over it`)] : [],
      ),
      ...(joints.some(isOver) ? [told('the mark of a joint stands on it')] : []),
      ...(picture.numbers.some((number) => isOver(number.at)) ? [told('a number stands on it')] : []),
      ...picture.labels.flatMap((other, number) =>
        number !== at && within(other).some(isOver) ? [told(`${other.name || other.id} stands on it`)] : [],
      ),
      ...(x < view.x || y < view.y || x + w > view.x + view.w || y + h > view.y + view.h
        ? [told('it is cut off')]
        : []),
    ];
  });
}

describe('a picture of a step', () => {
  it.each(demoMaps().map((map) => ({ id: map.id, map })))(
    'of $id has each name within what is seen of its part, and covered by nothing, at every step',
    ({ map }) => {
      const part =
        map.parts.find(({ kind, base }) => kind === 'display' && !base) ?? map.parts.find(({ base }) => !base)!;
      const answering = new Answering(new TestBench(map, [{ replace: part.id }]));
      const problems = new Set<string>();
      let [names, asked] = [0, 0];
      answering.toTheRecord((question) => {
        if (answering.page === 'bench') {
          const { mechanism, state } = answering.bench;
          const { op, together } = answering.inHand();
          const { list } = question;
          const { drawn } = stepPicture(mechanism, state, {
            op,
            together,
            list,
            side: sideOf(map, op),
            isMarked: false,
          });
          for (const each of together)
            if (isMirrored(map, drawn, each)) problems.add(`${each.id}: its left is drawn right`);
          for (const size of SIZES) {
            const picture = pictureOf(drawn, size);
            for (const each of wrong(drawn, picture)) problems.add(`${question.id}: ${each}`);
            names += picture.labels.filter(({ name }) => name !== '').length;
            asked++;
            const drawnNumbers = [
              ...picture.numbers,
              ...picture.labels.flatMap(({ numbers }) => numbers.map((number) => ({ number }))),
            ];
            for (const [index, { at }] of list.entries()) {
              const isDrawn = drawnNumbers.some(({ number }) => number === index + 1);
              if (isPlaced(drawn, at) && !isDrawn) problems.add(`${question.id}: ${index + 1} is not on the drawing`);
            }
          }
        }
        return question.answers.find(({ id }) => id === 'rest-works')?.id;
      });
      expect([...problems]).toEqual([]);
      expect(names / asked).toBeGreaterThan(1);
    },
    120_000,
  );
});
