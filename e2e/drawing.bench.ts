import { chromium, type Page } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import config from './playwright.config.ts';
import { DemoServer } from './server.ts';

// How evenly a device with 2 000 holes is drawn while it is zoomed and moved. The reference is a page with nothing but a square
// that moves, in the same browser. Prints one line of JSON.
const server = await DemoServer.start();
const browser = await chromium.launch(config.use!.launchOptions);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

const HOLES = 2000;
const map = JSON.parse(readFileSync(new URL('../demo/device-maps/shearwater-11.json', import.meta.url), 'utf8')) as {
  id: string;
  joints: { type: string; id: string; points?: object[] }[];
  outline: { width: number; height: number };
};
const screws = map.joints.find(({ type }) => type === 'screw')!;
const columns = 40;
const points = Array.from({ length: HOLES }, (_, at) => ({
  id: `h${at}`,
  x: 4 + ((at % columns) * (map.outline.width - 8)) / columns,
  y: 4 + (Math.floor(at / columns) * (map.outline.height - 8)) / (HOLES / columns),
  depth: 20,
  below: 'metal',
}));
// a joint holds 500 points at most
const joints = [0, 1, 2, 3].map((part) => ({
  ...screws,
  id: `${screws.id}-${part}`,
  points: points.slice(part * 500, (part + 1) * 500),
}));
const many = {
  ...map,
  id: 'many-holes',
  joints: [...map.joints.map((each) => (each === screws ? joints[0]! : each)), ...joints.slice(1)],
};
const text = JSON.stringify(many).replaceAll(`"joint":"${screws.id}"`, `"joint":"${joints[0]!.id}"`);
const posted = (path: string, body: string) =>
  fetch(`${server.url}/api/v1${path}`, { method: 'POST', body, headers: { 'content-type': 'application/json' } });
const stored = await posted('/device-maps', text);
if (stored.status !== 201) throw new Error(await stored.text());
const job = randomUUID();
const made = await posted(
  '/jobs',
  JSON.stringify({ id: job, map: 'many-holes', targets: [{ full: true }], title: 'Many' }),
);
if (made.status !== 201) throw new Error(await made.text());

/** Keeps the time between any two frames. */
const WATCH = `{
  const times = (window.times = []);
  let last = performance.now();
  const look = (now) => {
    times.push(now - last);
    last = now;
    requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
}`;

/** Times between frames while a hand drags and turns the wheel over the middle of what is shown. */
async function frames(on: Page, selector: string, move: boolean) {
  const box = (await on.locator(selector).first().boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await on.evaluate(WATCH);
  await on.mouse.move(x, y);
  if (move) {
    for (let turn = 0; turn < 12; turn++) {
      await on.mouse.wheel(0, turn < 8 ? -120 : 60);
      await on.waitForTimeout(30);
    }
    await on.mouse.down();
    for (let step = 0; step < 60; step++) await on.mouse.move(x + 90 * Math.sin(step / 5), y + 70 * Math.cos(step / 7));
    await on.mouse.up();
  } else await on.waitForTimeout(1500);
  const all = ((await on.evaluate('window.times')) as number[]).slice(5);
  const sorted = all.toSorted((a, b) => a - b);
  const at = (share: number) => Math.round(sorted[Math.floor((sorted.length - 1) * share)]! * 10) / 10;
  return { frames: all.length, p50_ms: at(0.5), p95_ms: at(0.95), worst_ms: at(1) };
}

await page.setContent(
  '<div id="still" style="width:300px;height:300px;animation:turn 1s linear infinite;background:#888"></div><style>@keyframes turn{to{transform:rotate(1turn)}}</style>',
);
const bare = await frames(page, '#still', false);
await page.goto(`${server.url}/jobs/${job}/screws/mix-ups`);
await page.getByRole('group', { name: /holes for/ }).waitFor();
const began = Date.now();
await page.waitForTimeout(1500);
const drawn = await frames(page, 'svg[role="group"]', true);
console.log(JSON.stringify({ drawing: { holes: HOLES, waited_ms: Date.now() - began, bare, drawn } }));
await browser.close();
await server.kill();
