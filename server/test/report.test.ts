import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readJson, TestServer } from './harness.ts';

const api = new TestServer({ standIns: true });
const call = api.call.bind(api);
let job = '';

beforeAll(async () => {
  await api.start();
  await call('POST', '/device-maps', readJson('demo/device-maps/gannet-works.json'));
  const title = '<script>&" Чайка ' + 'long '.repeat(60);
  const made = await call('POST', '/jobs', {
    map: 'gannet-works',
    targets: [{ replace: 'cell' }],
    title,
    owner: 'Ferry Aldis',
  });
  job = (made.body as { id: string }).id;
});
afterAll(() => api.stop());

const printed = async (id: string) => {
  const response = await fetch(`${api.base}/jobs/${id}/report.pdf`);
  return {
    status: response.status,
    bytes: Buffer.from(await response.arrayBuffer()),
    type: response.headers.get('content-type'),
  };
};

describe('the report as a PDF', () => {
  it('is one or two pages with its font in it, whatever the repair is called', async () => {
    const { status, bytes, type } = await printed(job);
    expect([status, type]).toEqual([200, 'application/pdf']);
    const pdf = bytes.toString('latin1');
    expect(pdf.startsWith('%PDF-')).toBe(true);
    expect(pdf).toContain('/FontFile');
    expect(pdf).toContain('/ToUnicode');
    const pages = [...pdf.matchAll(/\/Type \/Page\b(?!s)/g)].length;
    expect([1, 2]).toContain(pages);
  });
  it('is of a repair that is there', async () => {
    expect((await printed('nobody')).status).toBe(404);
    expect((await call('POST', `/jobs/${job}/report.pdf`, {})).status).toBe(405);
  });
});
