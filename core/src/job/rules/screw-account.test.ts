import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { gannetWorks } from '../../../test/maps.ts';
import { solveSpill } from '../../screws/mix-ups/index.ts';
import { withNewScrews } from '../../bench/in-hand/index.ts';
import { EVENT_DATA } from '../events/events.ts';

const stripped = () => new TestBench(gannetWorks(), [{ remove: 'board' }]).prepare().until('fit:board');
const make = { id: 'make:lid-screws', kind: 'make', joint: 'lid-screws' } as const;
const lengthOf = (bench: TestBench, fastener: string) =>
  bench.mechanism.map.fasteners.find(({ id }) => id === fastener)!.length;

describe('a screw that was measured', () => {
  it('is refused at its hole with the harm named, also to a client that lies, and a new one is not', () => {
    const bench = stripped();
    bench.send('screw-measured', { joint: 'lid-screws', point: 'l1', length_mm: 4.2 }).until('make:lid-screws');
    bench.send('did', { steps: [make] });
    expect(bench.problem).toContain('sticks out 1.5 mm, into the board');
    expect(bench.problem).toContain('screw of Connector lid, 4.2 mm,');
    const [fresh] = withNewScrews(bench.mechanism, bench.state, [make]);
    expect(fresh!.freshScrews).toEqual(['l1']);
    expect(bench.send('did', { steps: [fresh!] }).problem).toBeNull();
  });
  it('goes in where a caliper is no better than the difference', () => {
    const bench = stripped();
    bench.send('screw-measured', { joint: 'lid-screws', point: 'l1', length_mm: 2.46 }).until('make:lid-screws');
    expect(bench.send('did', { steps: [make] }).problem).toBeNull();
  });
  it('is refused where it is too short, unless it was found so in its own hole', () => {
    const bench = stripped();
    const board = { id: 'make:board-screws', kind: 'make', joint: 'board-screws' } as const;
    bench.send('screw-measured', { joint: 'board-screws', point: 'b1', length_mm: 2.4 }).until('make:board-screws');
    expect(bench.send('did', { steps: [board] }).problem).toContain('holds by 1.2 mm less');
    const own = stripped();
    const found = { kind: 'another-length', text: '', joint: 'board-screws', point: 'b1', length_mm: 2.4 } as const;
    own.send('trouble', found).until('make:board-screws');
    expect(own.send('did', { steps: [board] }).problem).toBeNull();
  });
  it('has to lie on the mat', () => {
    const bench = stripped();
    expect(bench.send('screw-measured', { joint: 'port-screws', point: 'o1', length_mm: 3 }).problem).toContain(
      'not on the mat',
    );
  });
});

describe('a spilled mat', () => {
  /** All that lies there, as it would be measured, in another order. */
  const pickedUp = (bench: TestBench) =>
    bench.state.ledger.onMat
      .map(({ fastener, joint, point }) => ({
        id: `${joint}/${point}`,
        length_mm: lengthOf(bench, fastener),
        drive: bench.mechanism.map.fasteners.find(({ id }) => id === fastener)!.drive,
      }))
      .toReversed();

  it('comes back whole, save what no caliper tells apart', () => {
    const bench = stripped();
    const loose = pickedUp(bench);
    const { returned, missing } = solveSpill(bench.mechanism.map, bench.state.ledger, loose, bench.state.limits);
    expect(missing).toEqual([]);
    for (const { loose: id, hole, isAmbiguous } of returned) {
      const own = bench.state.ledger.onMat.find((each) => `${each.joint}/${each.point}` === id)!;
      if (!isAmbiguous) expect(hole!.fastener, id).toBe(own.fastener);
    }
  });

  it('calls two that were measured in the middle ambiguous, and marks them on the mat', () => {
    const bench = stripped();
    const between = ['lid-screws/l1', 'holder-screws/h1'];
    const loose = pickedUp(bench).map((each) => (between.includes(each.id) ? { ...each, length_mm: 2.45 } : each));
    const { returned } = solveSpill(bench.mechanism.map, bench.state.ledger, loose, bench.state.limits);
    expect(returned.filter(({ isAmbiguous }) => isAmbiguous).map((each) => each.loose)).toEqual(
      expect.arrayContaining(between),
    );
    const placed = returned.map(({ loose: id, hole, p }) => ({ loose: id, joint: hole!.joint, point: hole!.point, p }));
    bench.send('spill', { loose, placed });
    const unsure = bench.state.ledger.onMat.filter((each) => each.isUnsure).map(({ fastener }) => fastener);
    expect(unsure.length).toBeGreaterThanOrEqual(2);
    expect([...new Set(unsure)].toSorted()).toEqual(['holder', 'lid']);
    // one that is measured for its hole is no longer in doubt
    const doubtful = bench.state.ledger.onMat.find((each) => each.isUnsure)!;
    bench.send('screw-measured', { joint: doubtful.joint, point: doubtful.point, length_mm: 2.4 });
    expect(bench.state.ledger.onMat.filter((each) => each.isUnsure)).toHaveLength(unsure.length - 1);
    // they fit each other's holes without harm: nothing is refused
    expect(bench.until().send('finish', {}).problem).toBeNull();
  });

  it('says which will be lacking and which belongs nowhere, and the ledger follows', () => {
    const bench = stripped();
    const all = pickedUp(bench);
    const lid = all.findIndex(({ id }) => id === 'lid-screws/l2');
    const loose = [...all.toSpliced(lid, 1), { id: 'stranger', length_mm: 9.1, drive: 'PH000' }];
    const { returned, missing } = solveSpill(bench.mechanism.map, bench.state.ledger, loose, bench.state.limits);
    expect(returned.find((each) => each.loose === 'stranger')!.hole).toBeNull();
    expect(missing.map(({ fastener }) => fastener)).toEqual(['lid']);
    const placed = returned.flatMap(({ loose: id, hole, p }) =>
      hole ? [{ loose: id, joint: hole.joint, point: hole.point, p }] : [],
    );
    bench.send('spill', { loose, placed });
    expect(bench.problem).toBeNull();
    expect(bench.state.ledger.lost).toEqual(missing);
    const { id } = bench.state.events.at(-1)!;
    // nothing goes on over a screw that may lie anywhere
    bench.until('fit:holder').send('did', { steps: [{ id: 'fit:holder', kind: 'fit', part: 'holder' }] });
    expect(bench.problem).toContain('A screw is missing');
    while (bench.state.inForce.at(-1)!.id !== id) bench.send('undo', { event: bench.state.inForce.at(-1)!.id });
    // and taken back, all lies there again
    expect(bench.send('undo', { event: id }).state.ledger).toMatchObject({ lost: [], onMat: { length: all.length } });
  });

  it('refuses a screw that nobody picked up, and a hole that had none on the mat', () => {
    const bench = stripped();
    const loose = [{ id: 'a', length_mm: 2.4 }];
    const place = (of: string, joint: string, point: string) =>
      bench.send('spill', { loose, placed: [{ loose: of, joint, point, p: 1 }] }).problem;
    expect(place('b', 'lid-screws', 'l1')).toContain('“b”');
    expect(place('a', 'port-screws', 'o1')).toContain('port-screws');
  });

  it.each([
    ['a length of −1', { loose: [{ id: 'a', length_mm: -1 }], placed: [] }],
    ['a length of 900', { loose: [{ id: 'a', length_mm: 900 }], placed: [] }],
    ['no scatter', { loose: [{ id: 'a', length_mm: 3, sd_mm: 0 }], placed: [] }],
    ['two screws of one name', { loose: [1, 2].map(() => ({ id: 'a', length_mm: 3 })), placed: [] }],
    [
      'one screw in two holes',
      {
        loose: [{ id: 'a', length_mm: 3 }],
        placed: ['l1', 'l2'].map((point) => ({ loose: 'a', joint: 'lid-screws', point, p: 1 })),
      },
    ],
    [
      'two screws in one hole',
      {
        loose: ['a', 'b'].map((id) => ({ id, length_mm: 3 })),
        placed: ['a', 'b'].map((loose) => ({ loose, joint: 'lid-screws', point: 'l1', p: 1 })),
      },
    ],
  ])('takes no %s', (_, data) => {
    expect(EVENT_DATA.spill.validate(data).error).toBeDefined();
  });

  it('finds more loose screws than holes strangers, and nothing where nothing lay there', () => {
    const bench = stripped();
    const more = [...pickedUp(bench), { id: 'x', length_mm: 2.4, drive: 'PH000' }];
    const { returned } = solveSpill(bench.mechanism.map, bench.state.ledger, more, bench.state.limits);
    expect(returned.filter(({ hole }) => hole === null)).toHaveLength(1);
    expect(
      solveSpill(bench.mechanism.map, { onMat: [] }, [{ id: 'x', length_mm: 2 }], bench.state.limits).returned[0]!.hole,
    ).toBeNull();
  });
});
