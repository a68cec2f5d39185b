import { readFileSync } from 'node:fs';
import { note } from './note.ts';

// Somebody who means harm, as a process of its own: the largest maps there may be, whole calls, lists without end.
const [api, spare, seconds] = process.argv.slice(2) as [string, string, string];
const until = performance.now() + Number(seconds) * 1000;
interface Anything {
  readonly id: string;
  readonly base?: boolean;
}
const map = JSON.parse(readFileSync(new URL('../../demo/device-maps/tern-5.json', import.meta.url), 'utf8')) as {
  readonly id: string;
  readonly parts: readonly Anything[];
  readonly joints: readonly Anything[];
  readonly fasteners: readonly Anything[];
};
const parts = Array.from({ length: 460 }, (_, n) => ({
  id: `p${n}`,
  name: `P${n}`,
  kind: 'other',
  face: 'front',
  box: { x: 2 + (n % 20) * 3, y: 2 + Math.floor(n / 20) * 5, w: 2, h: 4 },
  z: { top: 3, bottom: 4 },
}));
const joints = Array.from({ length: 1900 }, (_, n) => ({
  id: `j${n}`,
  type: 'clip',
  holds: [`p${n % 460}`],
  to: map.parts.find((each) => each.base)!.id,
  face: 'front',
  under: n > 480 ? [{ joint: `j${(n * 7) % 480}` }] : [],
}));
const huge = { ...map, parts: [...map.parts, ...parts], joints: [...map.joints, ...joints] };
const counts: Record<string, number> = {};

async function post(path: string, body: unknown): Promise<void> {
  const headers = { 'content-type': 'application/json' };
  const answer = await fetch(api + path, { method: 'POST', headers, body: JSON.stringify(body) });
  await answer.arrayBuffer();
  counts[`${path.replace(spare, 'id')} ${answer.status}`] =
    (counts[`${path.replace(spare, 'id')} ${answer.status}`] ?? 0) + 1;
}

/** Each kind again as soon as it is answered, none waiting for another. */
async function unceasing(path: string, body: () => unknown): Promise<void> {
  while (performance.now() < until) await post(path, body());
}

/** A device of three metres with a screw every few centimetres: its mat is a book. */
const long = {
  ...map,
  id: 'three-metres',
  outline: { width: 3000, height: 3000, thickness: 20, corner: 8 },
  joints: [
    ...map.joints,
    ...Array.from({ length: 20 }, (_, row) => ({
      id: `row${row}`,
      type: 'screw',
      holds: [map.parts.find((each) => !each.base)!.id],
      to: map.parts.find((each) => each.base)!.id,
      face: 'front',
      fastener: map.fasteners[0]!.id,
      points: Array.from({ length: 20 }, (__, n) => ({
        id: `r${row}n${n}`,
        x: 20 + n * 148,
        y: 20 + row * 148,
        depth: 12,
        below: 'plastic',
      })),
    })),
  ],
};
async function printing(path: string): Promise<void> {
  while (performance.now() < until) {
    const answer = await fetch(api + path);
    await answer.arrayBuffer();
    const key = `${path.replace(spare, 'id')} ${answer.status}`;
    counts[key] = (counts[key] ?? 0) + 1;
  }
}
await post('/device-maps', long);

await Promise.all([
  ...Array.from({ length: 4 }, () =>
    unceasing('/compute/plan', () => ({ map: huge, targets: [{ full: true }], timeLimitMs: 3000 })),
  ),
  ...Array.from({ length: 3 }, () => printing('/device-maps/three-metres/screw-mat.pdf')),
  ...Array.from({ length: 3 }, () => printing(`/jobs/${spare}/report.pdf`)),
  unceasing('/compute/possible', () => ({ map: huge })),
  unceasing('/device-maps/check', () => huge),
  unceasing(`/jobs/${spare}/events`, () => ({ events: Array.from({ length: 1000 }, note) })),
  unceasing('/jobs', () => ({ map: map.id, targets: Array.from({ length: 9000 }, () => ({})) })),
]);
console.log(JSON.stringify(counts));
