import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { EFFORT } from '../../../test/effort.ts';
import { EVERY_EVENT } from '../../../test/every-event.ts';
import { Led } from '../../../test/led.ts';
import { demoMaps } from '../../../test/maps.ts';
import { random } from '../../../test/random-map.ts';
import { Refusal } from '../../model/refusal/index.ts';
import type { EventData, EventType } from '../events/events.ts';
import { foldJob } from './fold.ts';

const maps = demoMaps();
const types = Object.keys(EVERY_EVENT) as EventType[];
/** As sent by a tablet whose clock is right, slow or fast, or that was away for a while. */
const AGO_s = [0, 0, 0, 30, -30, 900];

function walked(seed: number): TestBench {
  const next = random(seed);
  const pick = <T>(from: readonly T[]) => from[Math.floor(next() * from.length)]!;
  const map = pick(maps);
  const bench = new TestBench(map, [{ replace: pick(map.parts.filter((each) => !each.base && !each.removeFirst)).id }]);
  const led = new Led(bench);
  for (let n = 0; n < 25; n++) {
    if (next() < 0.6 && bench.state.stops.length === 0) {
      try {
        if (!led.next()) return bench;
      } catch (error) {
        // there is no way to what was to be replaced, or to what was lied about
        if (error instanceof Refusal) return bench;
        throw error;
      }
      continue;
    }
    const type = pick(types);
    const last = bench.state.inForce.at(-1);
    const data = type === 'undo' && last ? { event: last.id } : EVERY_EVENT[type];
    bench.tell(type, data as EventData[EventType], { by: pick(['Ines', 'Maren']), ago_s: pick(AGO_s) });
  }
  return bench;
}

describe('a repair that is folded on the other side', () => {
  it('stands where it stood, also with what was told late, and whatever was sent', () => {
    for (let seed = 1; seed <= 60 * EFFORT; seed++) {
      const { mechanism, job, state } = walked(seed);
      const sent = JSON.parse(JSON.stringify(state.events)) as typeof state.events;
      expect(foldJob(mechanism, job, sent)).toEqual(state);
    }
  });
});
