import { describe, expect, it } from 'vitest';
import { tern5 } from '../../../test/maps.ts';
import type { JobState } from '../../job/state/index.ts';
import { assembled, mechanismOf, OPEN } from '../../planner/holds/index.ts';
import { justClosed } from './just-closed.ts';

const map = tern5();
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
