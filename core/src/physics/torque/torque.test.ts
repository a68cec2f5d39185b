import { describe, expect, it } from 'vitest';
import { torqueOf, torqueRequest } from './index.ts';

const thread = (d: number, pitch: number) => ({ d, pitch });
const given = { headBearing_mm: 2, muThread: 0.14, muHead: 0.14, preload_N: 100 };

describe('a torque', () => {
  it.each([
    // ISO 898-1 from M1.6, below it computed with its formula (from memory)
    [1, 0.25, 0.46],
    [1.2, 0.25, 0.732],
    [1.4, 0.3, 0.983],
    [1.6, 0.35, 1.27],
    [2, 0.4, 2.07],
    [2.5, 0.45, 3.39],
    [3, 0.5, 5.03],
  ])('knows the stress area of M%s × %s: %s mm²', (d, pitch, area) => {
    expect(torqueOf({ thread: thread(d, pitch), ...given }).stressArea_mm2).toBeCloseTo(area, 2);
  });

  it('is that of VDI 2230, and turns back into its preload', () => {
    const at = { thread: thread(1.4, 0.3), ...given };
    const said = torqueOf(at);
    const d2 = 1.4 - 0.6495 * 0.3;
    const N_mm = 100 * (0.16 * 0.3 + 0.58 * d2 * 0.14 + 0.14);
    expect(said.torque.N_cm).toBeCloseTo(N_mm / 10, 9);
    expect(said.torque.N_m).toBeCloseTo(N_mm / 1000, 9);
    // definitions: 1 kgf·cm = 9.80665 N·cm, 1 ozf·in = 0.7061552 N·cm
    expect(said.torque.kgf_cm * 9.80665).toBeCloseTo(said.torque.N_cm, 9);
    expect(said.torque.ozf_in * 0.7061552).toBeCloseTo(said.torque.N_cm, 9);
    const { preload_N: _, ...rest } = at;
    expect(torqueOf({ ...rest, torque_Ncm: said.torque.N_cm }).preload_N).toBeCloseTo(100, 9);
    expect(said.tensile_MPa).toBeCloseTo(100 / said.stressArea_mm2, 9);
  });

  it('strips the boss at τ · π d (m/P) · [P/2 + (d − d2) tan 30°]', () => {
    const said = torqueOf({ thread: thread(1.4, 0.3), ...given, engagement_mm: 2, shearStrength_MPa: 30 });
    const strip = 30 * Math.PI * 1.4 * (2 / 0.3) * (0.15 + 0.6495 * 0.3 * Math.tan(Math.PI / 6));
    expect(said.strip_N).toBeCloseTo(strip, 6);
    expect(said.stripMargin).toBeCloseTo(strip / 100, 8);
  });

  it('takes no friction at all, and refuses what is no thread or not one of the two', () => {
    expect(torqueOf({ thread: thread(1.4, 0.3), ...given, muThread: 0, muHead: 0 }).torque.N_cm).toBeCloseTo(0.48, 9);
    expect(() => torqueOf({ thread: thread(0.3, 0.3), ...given })).toThrow('too coarse');
    const refused = (more: object) =>
      torqueRequest.validate({ thread: thread(1.4, 0.3), ...given, ...more }).error?.message;
    expect(refused({ torque_Ncm: 5 })).toContain('not both');
    expect(refused({ preload_N: undefined })).toContain('one of the two');
    expect(refused({ muHead: -0.1 })).toContain('muHead');
    expect(refused({ engagement_mm: 2 })).toContain('belong together');
    // what vanishes gives no figure
    expect(refused({ thread: { d: 1e-200, pitch: 1e-201 } })).toMatch(/thread\.d.*0\.001/);
    expect(refused({ preload_N: 1e-300 })).toMatch(/preload_N.*0\.000001/);
    const least = { headBearing_mm: 0.001, engagement_mm: 200, shearStrength_MPa: 10_000, preload_N: 1e-6 };
    const said = torqueOf({ ...given, ...least, thread: thread(0.002, 0.001) });
    expect([said.tensile_MPa, said.stripMargin, said.torque.ozf_in].every(Number.isFinite)).toBe(true);
  });
});
