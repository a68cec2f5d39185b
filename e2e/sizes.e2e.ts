import { doneStep } from '@nibrel/core/bench/in-hand';
import { expect, type Page, test } from '@playwright/test';
import { Driven } from './drive.ts';
import { DemoServer } from './server.ts';
import { heading, openBench } from './steps.ts';
import { noViolations } from './violations.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
});

/** Words smaller than this are not read at arm's length, px. */
const LEAST_PX = 12;

/** What of a screen is too small, or the main button where it is out of sight. */
function faults(page: Page): Promise<string[]> {
  return page.evaluate((least) => {
    const found = new Set<string>();
    const button = document.querySelector('[data-step]')?.getBoundingClientRect();
    if (button && (button.top < 0 || button.bottom > innerHeight + 1)) found.add('the main button is out of sight');
    if (document.documentElement.scrollWidth > innerWidth + 1) found.add('it overflows sideways');
    const where = document.querySelector('.frame-where')!.getBoundingClientRect();
    const isUpright = innerWidth < 1024;
    if (innerWidth >= 768 && (isUpright ? where.height / innerHeight : where.width / innerWidth) < 0.495)
      found.add('the drawing is smaller than half of the screen');
    const bar = document.querySelector('nav[aria-label="Answers"]')!.getBoundingClientRect();
    // a page that is longer than its window ends above its bar
    scrollTo(0, document.body.scrollHeight);
    const last = document.querySelector('main')!.getBoundingClientRect().bottom;
    const barNow = document.querySelector('nav[aria-label="Answers"]')!.getBoundingClientRect();
    if (last > barNow.top + 1) found.add('something lies under the bar');
    scrollTo(0, 0);
    if (bar.height > innerHeight / 2) found.add('the bar takes more than half of the screen');
    const words = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = words.nextNode(); node; node = words.nextNode()) {
      const text = node.textContent?.trim();
      const element = node.parentElement;
      if (!text || !element || element.closest('.sr-only, script, style, title, option')) continue;
      const range = document.createRange();
      range.selectNodeContents(node);
      const { width, height } = range.getBoundingClientRect();
      if (width === 0 || height === 0) continue;
      const drawn = element.closest('svg') ? (element as unknown as SVGGraphicsElement).getScreenCTM() : null;
      const px = parseFloat(getComputedStyle(element).fontSize) * (drawn ? Math.hypot(drawn.a, drawn.b) : 1);
      if (px < least - 0.05) found.add(`${px.toFixed(1)} px: ${text.slice(0, 30)}`);
    }
    return [...found];
  }, LEAST_PX);
}

/** What is wrong and stays so: what is in hand is drawn anew first. */
async function lastingFaults(page: Page): Promise<string[]> {
  let here: string[] = [];
  await expect
    .poll(async () => (here = await faults(page)).length, { timeout: 3000 })
    .toBe(0)
    .catch(() => undefined);
  return here;
}

for (const { device, part } of [
  { device: 'shearwater-11', part: 'display' },
  { device: 'knot-keys', part: 'lid-display' },
]) {
  for (const { width, height } of [
    { width: 1280, height: 800 },
    { width: 820, height: 1180 },
  ]) {
    test(`every step of ${device} at ${width} × ${height} has its button in sight and no word too small`, async ({
      page,
    }) => {
      await page.setViewportSize({ width, height });
      const title = 'A job whose name is rather longer than usual';
      const job = await Driven.begin(server.url, device, [{ replace: part }], title);
      await openBench(page, job);
      await expect(heading(page)).toBeVisible();
      await page.emulateMedia({ colorScheme: width > height ? 'dark' : 'light' });
      const wrong = new Map<string, string[]>();
      const kinds = new Set<string>();
      for (const op of await job.ahead()) {
        await expect(page.locator('[data-step]')).toBeVisible();
        const here = await lastingFaults(page);
        if (here.length > 0) wrong.set(op.id, here);
        // each kind of question once; all of them in `npm run bench`
        const kind = op.name ?? op.kind;
        if (!kinds.has(kind)) await noViolations(page, op.id);
        kinds.add(kind);
        const stage = op.id === 'test:before' ? 'before' : 'after';
        const tests = (op.functions ?? []).map((id) => ({
          type: 'test',
          data: { function: id, result: 'works', stage },
        }));
        await job.send(...tests, { type: 'did', data: { steps: [doneStep(op)] } });
      }
      expect(Object.fromEntries(wrong)).toEqual({});
    });
  }
}

// a phone, a laptop at 200 %, and one with larger letters
for (const { name, width, height, letters } of [
  { name: 'a phone', width: 390, height: 844, letters: 100 },
  { name: '200 %', width: 640, height: 400, letters: 100 },
  { name: 'letters of 125 %', width: 1280, height: 800, letters: 125 },
]) {
  test(`every stage fits on ${name}: the main answer in sight, nothing sideways, nothing under the bar`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height });
    await page.addInitScript((percent) => {
      addEventListener('DOMContentLoaded', () => {
        document.documentElement.style.fontSize = `${(17 * percent) / 100}px`;
      });
    }, letters);
    const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Small screens');
    await job.until('release:connector-lid-screws');
    await openBench(page, job);
    const found: string[] = [];
    for (const path of ['', '/intake', '/prepare', '/hand-over']) {
      await page.goto(job.address + path);
      await expect(page.locator('[data-step]')).toBeVisible();
      found.push(...(await lastingFaults(page)).map((fault) => `${path}: ${fault}`));
    }
    await page.goto(`${server.url}/new?map=tern-5&part=display`);
    await expect(page.locator('[data-step]')).toBeVisible();
    found.push(...(await lastingFaults(page)).map((fault) => `new: ${fault}`));
    expect(found).toEqual([]);
  });
}
