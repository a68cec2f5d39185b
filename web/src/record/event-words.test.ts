import { readFileSync } from 'node:fs';
import { EVENT_DATA } from '@nibrel/core/bench';
import type { DeviceMap } from '@nibrel/core/device-map';
import { describe, expect, it } from 'vitest';
import { capital, countdown, duration, plural } from '../app/format.ts';
import { eventLine } from './event-words.ts';

const map = JSON.parse(
  readFileSync(new URL('../../../docs/examples/sample.json', import.meta.url), 'utf8'),
) as DeviceMap;

const line = (type: string, data: object) => eventLine(map, { id: 'e', type, at: '', by: '', data } as never);

describe('a line of the record', () => {
  it('says one step by its name, many as a group, and what happened anyway', () => {
    const lift = { id: 'lift:lid', kind: 'lift', part: 'lid' };
    expect(line('did', { steps: [lift] })).toBe('Lift off Connector lid');
    expect(line('did', { steps: [lift, lift] })).toBe('2 operations as a group, until lift off Connector lid');
    expect(line('did', { steps: [lift], anyway: 'slipped' })).toContain('it happened anyway: slipped');
  });

  it('has words for every type of event', () => {
    const data: Record<string, object> = {
      note: { text: 'dry' },
      did: { steps: [{ id: 'x', kind: 'procedure', name: 'count' }] },
      screw: { joint: 'lid-screws', point: 'c' },
      timer: { step: 'heat:seal', seconds: 300 },
      undo: { event: 'x' },
      trouble: { kind: 'screw-lost', text: 'rolled', joint: 'lid-screws' },
      found: { joint: 'lid-screws', point: 'c' },
      decision: { about: 'missing-screw', text: 'three hold' },
      test: { function: 'picture', result: 'not-tried', stage: 'before' },
      targets: { targets: [{ replace: 'cell' }, { reach: 'seal' }, { full: true }] },
      pause: {},
      resume: {},
      stop: { reason: 'smoke', text: '' },
      clear: { text: 'Maren: cold' },
      finish: {},
    };
    expect(Object.keys(data).sort()).toEqual(Object.keys(EVENT_DATA).sort());
    for (const [type, each] of Object.entries(data)) expect(line(type, each), type).toMatch(/^[A-Z].{3}/);
    expect(line('test', data['test']!)).toBe('Picture: not tried, before sealing');
    expect(line('targets', { targets: [] })).toContain('close it up');
  });
});

describe('figures', () => {
  it('are short, and rounded where that is honest', () => {
    expect([5, 89, 90, 3540, 3600, 4080].map(duration)).toEqual(['5 s', '89 s', '2 min', '59 min', '1 h 00', '1 h 08']);
    expect([300, 59.2, 0, -3].map(countdown)).toEqual(['5:00', '1:00', '0:00', '0:00']);
    expect([plural(1, 'screw'), plural(2, 'screw'), capital('tray pin')]).toEqual(['1 screw', '2 screws', 'Tray pin']);
  });
});
