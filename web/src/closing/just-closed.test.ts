import { readFileSync } from 'node:fs';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { assembled, mechanismOf, OPEN } from '@nibrel/core/planner/holds';
import type { JobState } from '@nibrel/core/job/state';
import { describe, expect, it } from 'vitest';
import { worthTrying } from '../trying/worth-trying.ts';
import { justClosed } from './just-closed.ts';

const file = new URL('../../../demo/device-maps/tern-5.json', import.meta.url);
const map = JSON.parse(readFileSync(file, 'utf8')) as DeviceMap;
const mechanism = mechanismOf(map);
const state = (...done: readonly object[]) => ({ done, device: assembled(mechanism) }) as unknown as JobState;

describe('what was closed last', () => {
  it('is the part that closes the device, also where its seal or its screws were made last', () => {
    expect(justClosed(mechanism, state())).toBeNull();
    expect(justClosed(mechanism, state({ kind: 'close', part: 'display' }))?.id).toBe('display');
    expect(justClosed(mechanism, state({ kind: 'make', joint: 'front-seal' }))?.id).toBe('display');
    // a lid inside and a tray close nothing that a thumb runs round
    expect(
      justClosed(mechanism, state({ kind: 'fit', part: 'connector-lid' }, { kind: 'fit', part: 'tray' })),
    ).toBeNull();
  });

  it('is none before anything seals it', () => {
    const given = state({ kind: 'close', part: 'display' });
    const released = given.device.released.slice();
    for (const id of ['front-seal', 'front-hooks']) released[mechanism.joint.get(id)!] = 1;
    expect(justClosed(mechanism, { ...given, device: { ...given.device, released } })).toBeNull();
  });

  it('is none while it stands open again', () => {
    const given = state({ kind: 'close', part: 'display' });
    const status = given.device.status.slice();
    status[mechanism.part.get('display')!] = OPEN;
    expect(justClosed(mechanism, { ...given, device: { ...given.device, status } })).toBeNull();
  });
});

describe('a trial that pays', () => {
  it('is offered at its own step only, with its functions by name', () => {
    const trials = [{ before: 'fit:connector-lid', functions: ['picture', 'gone'], seconds: 60, spares_s: 120 }];
    const where = { trials, expected_s: 60, asPlanned_s: 180 };
    const at = (id: string) => worthTrying(map, where, { id } as never);
    expect(at('fit:connector-lid')).toBe(
      'Worth trying here: Picture, gone. Takes 60 s, and is likely to spare 2 min more than that',
    );
    expect(at('close:display')).toBeNull();
    expect(worthTrying(map, null, { id: 'fit:connector-lid' } as never)).toBeNull();
  });
});
