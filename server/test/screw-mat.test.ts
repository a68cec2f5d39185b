import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TorqueDriverStandIn } from '../src/stand-ins/torque-driver.ts';
import { CaliperStandIn } from '../src/stand-ins/caliper.ts';
import { readJson, TestServer } from './harness.ts';
import { linesOf } from './pdf-lines.ts';

const api = new TestServer({ standIns: true });
const call = api.call.bind(api);
let job = '';

beforeAll(async () => {
  await api.start();
  for (const map of ['gannet-works', 'shearwater-11']) {
    await call('POST', '/device-maps', readJson(`demo/device-maps/${map}.json`));
  }
  const made = await call('POST', '/jobs', { map: 'gannet-works', targets: [{ remove: 'board' }], title: 'Winch <4>' });
  job = (made.body as { id: string }).id;
});
afterAll(() => api.stop());

const fetched = async (path: string) => {
  const response = await fetch(api.base + path);
  const bytes = Buffer.from(await response.arrayBuffer());
  return { status: response.status, headers: response.headers, bytes, text: bytes.toString('utf8') };
};
const mm = (points: number) => (points * 25.4) / 72;
const long = ([x1, y1, x2, y2]: number[]) => mm(Math.hypot(x2! - x1!, y2! - y1!));

describe('the printed mat', () => {
  it('is to scale on paper: a bar of 50 mm on every page, A4 and Letter', async () => {
    for (const [paper, box] of [
      ['a4', '595.28 841.89'],
      ['letter', '612 792'],
    ]) {
      const { status, headers, bytes } = await fetched(`/jobs/${job}/screw-mat.pdf?paper=${paper}`);
      expect([status, headers.get('content-type')]).toEqual([200, 'application/pdf']);
      const pdf = bytes.toString('latin1');
      const pages = [...pdf.matchAll(/MediaBox \[0 0 ([\d. ]+)\]/g)].map((match) => match[1]);
      expect(new Set(pages)).toEqual(new Set([box]));
      expect(linesOf(pdf).filter((line) => Math.abs(long(line) - 50) < 0.02)).toHaveLength(pages.length);
      // its words can be found and its letters are in it
      expect(pdf).toContain('/FontFile');
    }
  });

  it('draws a screw of 7.4 mm 7.4 mm long, wherever it lies, and the repair as a code', async () => {
    const { text, headers } = await fetched(`/jobs/${job}/screw-mat.svg`);
    expect(headers.get('nibrel-sheets')).toBe('1');
    expect(text).toContain('width="210mm" height="297mm" viewBox="0 0 210 297"');
    expect([...text.matchAll(/width="7.4" height="1.6"/g)]).toHaveLength(4);
    expect(text).toContain('Winch &lt;4&gt;');
    expect(text).toContain('id="code"');
    expect((await fetched('/device-maps/gannet-works/screw-mat.svg')).text).not.toContain('id="code"');
  });

  it('tiles a tablet', async () => {
    const { headers } = await fetched('/device-maps/shearwater-11/screw-mat.svg?sheet=2');
    expect(Number(headers.get('nibrel-sheets'))).toBeGreaterThan(1);
  });

  it('says what is wrong with what is asked', async () => {
    const refused = async (path: string) => (await call('GET', path)).status;
    expect(await refused(`/jobs/${job}/screw-mat.svg?sheet=99`)).toBe(404);
    expect(await refused(`/jobs/${job}/screw-mat.svg?sheet=0`)).toBe(422);
    expect(await refused(`/jobs/${job}/screw-mat.pdf?paper=a0`)).toBe(422);
    expect(await refused('/jobs/nobody/screw-mat.pdf')).toBe(404);
    expect(await refused('/device-maps/nowhere/screw-mat.pdf')).toBe(404);
    expect(await refused('/device-maps/gannet-works/screw-mat.exe')).toBe(404);
  });

  it('has none where no screw comes out', async () => {
    const map = readJson<{ joints: { type: string }[]; parts: object[] }>('docs/examples/sample.json');
    const none = { ...map, id: 'no-screws', joints: map.joints.filter(({ type }) => type !== 'screw') };
    const held = { id: 'clip', type: 'clip', holds: ['lid'], to: 'frame', face: 'front' };
    const joints = [...none.joints, held].map((each) => ({ ...each, under: [] }));
    expect((await call('POST', '/device-maps', { ...none, joints })).status).toBe(201);
    expect((await call('GET', '/device-maps/no-screws/screw-mat.pdf')).status).toBe(404);
  });
});

describe('the torque driver', () => {
  const window = { least_Ncm: 8, most_Ncm: 10 };
  it('leaves one of several low at the first try, and turns it on into its window', () => {
    const driver = new TorqueDriverStandIn([window, window, window], 5);
    const read = [0, 1, 2, 3].map((step) => driver.reading(step)!);
    expect(read.filter(({ peak_Ncm }) => peak_Ncm < 8)).toHaveLength(1);
    for (const screw of [1, 2, 3]) {
      const last = read.findLast((each) => each.screw === screw)!.peak_Ncm;
      expect([last >= 8, last <= 10]).toEqual([true, true]);
    }
    expect(read.map(({ isLast }) => isLast)).toEqual([false, false, false, true]);
    expect(driver.reading(4)).toBeNull();
  });
  it('streams, and refuses what are no windows', async () => {
    const { text } = await fetched('/stand-ins/torque-driver?windows=8-10');
    expect(JSON.parse(/data: (.*)/.exec(text)![1]!)).toMatchObject({ screw: 1, isLast: true, simulated: true });
    for (const query of ['', '?windows=', '?windows=8', '?windows=a-b', '?windows=8-10,']) {
      expect((await call('GET', `/stand-ins/torque-driver${query}`)).status, query).toBe(422);
    }
  });
});

describe('the caliper', () => {
  const screws = Array.from({ length: 200 }, (_, at) => ({ length_mm: 2 + at / 20, drive: 'PH000' }));
  const readings = (isSpilled: boolean, seed = 3) => {
    const caliper = new CaliperStandIn(screws, isSpilled, seed);
    return screws.map((_, step) => caliper.reading(step)!);
  };
  it('scatters by a twentieth of a millimetre about the true length, the same for the same seed', () => {
    const off = readings(false).map(({ length_mm }, at) => length_mm - screws[at]!.length_mm);
    const mean = off.reduce((sum, each) => sum + each, 0) / off.length;
    const sd = Math.sqrt(off.reduce((sum, each) => sum + (each - mean) ** 2, 0) / off.length);
    // 200 readings: the mean within 3 · 0.05 / √200, the scatter within 3 · 0.05 / √400
    expect(Math.abs(mean)).toBeLessThan(0.011);
    expect(Math.abs(sd - 0.05)).toBeLessThan(0.0076);
    expect(readings(true)).toEqual(readings(true));
    expect(readings(true)).not.toEqual(readings(true, 4));
  });
  it('streams until the last, and refuses what are no screws', async () => {
    const { text, headers } = await fetched('/stand-ins/caliper?screws=2.4:PH000,3.6:five-lobe%200.8&seed=1');
    expect(headers.get('content-type')).toContain('text/event-stream');
    const read = [...text.matchAll(/data: (.*)/g)].map((each) => JSON.parse(each[1]!) as { isLast: boolean });
    expect(read.map(({ isLast }) => isLast)).toEqual([false, true]);
    for (const query of ['', '?screws=', '?screws=900', '?screws=1:a,', `?screws=${'1:a,'.repeat(600)}1:a`]) {
      expect((await call('GET', `/stand-ins/caliper${query}`)).status, query.slice(0, 20)).toBe(422);
    }
  });
});
