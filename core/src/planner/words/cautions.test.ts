import { describe, expect, it } from 'vitest';
import { dunlinOpen, gannetWorks, petrelGlass, shearwater11, tern5 } from '../../../test/maps.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { cautionFor } from './cautions.ts';
import type { Op } from '../drafts/index.ts';

const op = (given: Partial<Op>): Op => ({
  id: 'count',
  kind: 'procedure',
  tool: null,
  face: null,
  seconds: 1,
  stage: 'open',
  why: '',
  whyNotEarlier: '',
  notBefore: [],
  ...given,
});
const said = (map: DeviceMap, given: Partial<Op>, dead = false) => cautionFor(map, op(given), dead) ?? '';

describe('a caution stands before its step and names the harm', () => {
  it("at heat: burns, the cell's own limit, no solvent, local rules", () => {
    const words = said(petrelGlass(), { name: 'heat', joint: 'back-bond', face: 'back' });
    expect(words).toContain('burns');
    expect(words).toContain('58 °C');
    expect(words).toContain('No solvent');
    expect(words).toContain('Local rules');
  });

  it('only of what is there: no cell in the heat on the mat, no levering under one that is not stuck', () => {
    expect(said(tern5(), { name: 'heat', joint: 'earpiece-glue' })).not.toContain('can vent');
    expect(said(tern5(), { name: 'heat', joint: 'front-seal', face: 'front' })).toContain('can vent');
    expect(said(tern5(), { kind: 'lift', part: 'cell' }, true)).toContain('never lever under its middle');
    expect(said(dunlinOpen(), { kind: 'lift', part: 'cell' }, true)).not.toContain('lever');
  });

  it('at solvent and at the airing after it: what burns, and what to keep away', () => {
    expect(said(tern5(), { name: 'soak', joint: 'cell-straps' })).toContain('Heat source off and away');
    expect(said(tern5(), { name: 'vent', joint: 'front-seal' })).toContain('can catch fire');
  });

  it('at solder: the iron, its heat and its fumes', () => {
    const words = said(gannetWorks(), { kind: 'release', joint: 'earpiece-wires' }, true);
    expect(words).toContain('350 °C');
    expect(words).toContain('fumes');
    expect(words).toContain('Local rules');
  });

  it('at a cut: glass, the mark, and the cells that the bond endangers', () => {
    const words = said(shearwater11(), { kind: 'release', joint: 'front-bond' });
    expect(words).toContain('not deeper than the mark');
    expect(words).toContain('Left cell, Right cell');
    expect(words).toContain('set it on fire');
    // at an edge only what lies behind it
    const cut = op({ kind: 'release', joint: 'front-bond' });
    expect(cautionFor(shearwater11(), cut, false, 'C', 'lower-right')).toContain('Behind it: Right cell;');
    expect(cautionFor(shearwater11(), cut, false, 'C', 'bottom')).not.toContain('fire');
    // closing it again cuts nothing
    expect(said(shearwater11(), { kind: 'make', joint: 'front-bond' })).not.toContain('fire');
  });

  it('at a live joint, at a cell, at a lid while the battery is connected', () => {
    expect(said(tern5(), { kind: 'release', joint: 'cell-plug', live: true })).toContain('Isolate directly after');
    expect(said(tern5(), { kind: 'lift', part: 'cell' }, true)).toContain('puncture');
    expect(said(shearwater11(), { kind: 'release', joint: 'cell-lid-screws' })).toContain('still connected');
    expect(said(shearwater11(), { kind: 'release', joint: 'cell-lid-screws' }, true)).toBe('');
    expect(said(shearwater11(), { kind: 'make', joint: 'cell-lid-screws' })).toContain('connected again');
    // a metal driver anywhere inside while it is not dead; outside it reaches nothing
    expect(said(tern5(), { kind: 'release', joint: 'edge-screws' })).toBe('');
  });
});
