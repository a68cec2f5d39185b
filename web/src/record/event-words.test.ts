import { readFileSync } from 'node:fs';
import { EVENT_DATA } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { usualSetting } from '@nibrel/core/physics/heat';
import { capital, countdown, plural, duration } from '@nibrel/core/planner/words';
import { describe, expect, it } from 'vitest';
import { eventLine } from './event-words.ts';

const map = JSON.parse(
  readFileSync(new URL('../../../docs/examples/sample.json', import.meta.url), 'utf8'),
) as DeviceMap;

const line = (type: string, data: object) => eventLine(map, { id: 'e', type, at: '', by: '', data } as never);

describe('a line of the record', () => {
  it('names every step in the words of the bench, and what happened anyway', () => {
    const lift = { id: 'lift:lid', kind: 'lift', part: 'lid' };
    const screws = { id: 'release:lid-screws', kind: 'release', joint: 'lid-screws' };
    expect(line('did', { steps: [lift] })).toBe('Lift it off · Connector lid');
    expect(line('did', { steps: [screws, lift] })).toBe(
      'Take out 1 screw · Connector lid; Lift it off · Connector lid',
    );
    expect(line('did', { steps: [{ ...lift, part: 'gone' }] })).toBe('Lift off gone');
    expect(line('did', { steps: [lift], anyway: 'slipped' })).toContain('it happened anyway: slipped');
  });

  it('names a test as it was asked for, and the bench by what was made ready', () => {
    const test = (id: string, more = {}) =>
      line('did', { steps: [{ id, kind: 'procedure', name: 'test', ...more }] }).split(' · ')[0];
    expect(test('test:before')).toBe('Try it before sealing');
    expect(test('test:before', { isUnsealed: true })).toBe('Try it before closing');
    expect(test('test:after', { isRest: true })).toBe('Try it closed');
    const prepared = { items: ['strap', 'sand'], skipped: [{ item: 'magnets', reason: 'none in it' }] };
    expect(line('prepared', prepared)).toBe(
      'Bench prepared: strap on, sand in reach; not: screws kept from the magnets (none in it)',
    );
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
      test: { function: 'picture', result: 'not-tried', stage: 'trial' },
      targets: { targets: [{ replace: 'cell' }, { reach: 'seal' }, { full: true }] },
      pause: {},
      resume: {},
      stop: { reason: 'smoke', text: '' },
      clear: { text: 'Maren: cold' },
      finish: {},
      click: { joint: 'cell-plug', heard: 'not-sure' },
      tightened: { joint: 'lid-screws', point: 'c', peak_Ncm: 6.1 },
      'screw-measured': { joint: 'lid-screws', point: 'c', length_mm: 2.4 },
      spill: { loose: [{ id: '1', length_mm: 2 }], placed: [], text: 'elbow' },
      flush: { part: 'screen', points: [{ x: 1, y: 1, step_mm: 0.4 }] },
      'photos-chosen': { photos: ['a'] },
      'handed-over': { to: 'Aldis', points: [], early: 'the ferry leaves' },
      end: { lead: 'Maren', text: 'scrapped' },
      words: { text: 'fell' },
      damage: { kind: 'crack', face: 'front', x: 1, y: 1, part: 'screen' },
      photo: { shown: 'a', thumb: 'a', width: 1, height: 1 },
      retract: { event: 'x' },
      measure: { part: 'cell', thickness_mm: 4.4 },
      wet: { indicator: 'not-seen', text: '' },
      charge: { charge: 0.24, source: 'meter', simulated: true },
      told: { items: ['a', 'b'], who: 'the owner', how: 'by-phone' },
      prepared: { items: ['strap'], skipped: [{ item: 'T3', reason: 'broken' }] },
      policy: { change: { display: 'taken-off', closing: null } },
      'battery-read': { of: 'new', health: 1, capacity_mAh: 4100, charge: 0.4, origin: 'as-foretold' },
      'transplant-allowed': { lead: 'Maren', text: '', charge: 0.2, confirmed: ['eyes'] },
      'transplant-done': { old_V: 3.8, cells_V: [3.81], checked: ['polarity'] },
      'part-arrived': { part: 'p', mapPart: 'screen', source: 'Harbour Parts', arrived: '2026-11-03', window_days: 30 },
      'part-looked': { part: 'p', condition: 'good', includes: ['lid'], lacks: [], text: '' },
      'part-number': { part: 'p', place: 'label', value: '' },
      'part-asked': { part: 'p', answer: 'not-reachable', where: 'by phone', number: '1', at: '', simulated: true },
      'part-decided': { part: 'p', decision: 'accept-anyway', text: 'Maren: the only one' },
      'part-sent-back': { part: 'p', date: '2026-11-24', text: '' },
      'heat-on': { joint: 'seal', setting: usualSetting('plate'), heat_s: 300, zone: 'upper', simulated: true },
      'heat-reading': { joint: 'seal', readings: [{ at_s: 65, temp_C: 41.2, spot: 'bond' }], simulated: true },
      'heat-off': { joint: 'seal', seconds: 305, bond_C: 63.6, setting: usualSetting('plate'), residual_C: 0.31 },
      edge: { joint: 'seal', segment: 'upper-left' },
      placeholder: { joint: 'seal', material: 'metal', count: 1 },
      solvent: { joint: 'seal', drops: 4, away: true },
      aired: { step: 'vent:seal', seconds: 130 },
      'not-mapped': { what: 'extra', name: 'Foil', over: { part: 'lid' }, text: '' },
      inspected: { part: 'lid', result: 'failed', text: 'torn' },
      closing: { joint: 'seal', way: 'glue', text: '' },
      'take-apart': {},
      'came-off': { part: 'lid', to: 'off', before: '00000000-0000-4000-8000-000000000001' },
      stuck: { part: 'lid', by: { joint: 'seal' } },
      'what-held': { part: 'lid', options: [], by: [] },
      described: { parts: [{ id: 'lid', mark: 'L' }], screws: [{ id: 'A', length: 2.5 }] },
      layer: { photo: '00000000-0000-4000-8000-000000000001', face: 'front' },
      'first-seen': { part: 'lid', photo: '00000000-0000-4000-8000-000000000001' },
      'put-together': {},
    };
    expect(Object.keys(data).sort()).toEqual(Object.keys(EVENT_DATA).sort());
    for (const [type, each] of Object.entries(data)) expect(line(type, each), type).toMatch(/^[A-Z].{3}/);
    expect(line('test', data['test']!)).toBe('Picture: not tried, in a trial');
    expect(line('targets', { targets: [] })).toContain('close it up');
    // whatever a stand-in said is marked, also on paper
    expect(line('charge', data['charge']!)).toContain('24 %, by the meter (simulated)');
    expect(line('part-asked', data['part-asked']!)).toContain('not reachable, by phone (simulated)');
    expect(line('heat-on', data['heat-on']!)).toBe(
      'Warming plate at 70 °C on Display: seal, upper, a stand-in (simulated)',
    );
    expect(line('heat-reading', data['heat-reading']!)).toBe(
      'Thermometer: 1 reading, last 41.2 °C after 1:05 (simulated)',
    );
    expect(line('heat-off', data['heat-off']!)).toContain('bond at about 64 °C; measured 350 W/m²K, 0.3 °C left over');
    expect(line('prepared', data['prepared']!)).toContain('not: T3 (broken)');
  });
});

describe('figures', () => {
  it('are short, and rounded where that is honest', () => {
    expect([5, 89, 90, 3540, 3600, 4080].map(duration)).toEqual(['5 s', '89 s', '2 min', '59 min', '1 h 00', '1 h 08']);
    expect([300, 59.2, 0, -3].map(countdown)).toEqual(['5:00', '1:00', '0:00', '0:00']);
    expect([plural(1, 'screw'), plural(2, 'screw'), capital('tray pin')]).toEqual(['1 screw', '2 screws', 'Tray pin']);
  });
});
