import { doneStep } from '@nibrel/core/bench/in-hand';
import { expect, type Page, test } from '@playwright/test';
import { Driven } from './drive.ts';
import { DemoServer } from './server.ts';
import { heading, openBench } from './steps.ts';

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
      const wrong = new Map<string, string[]>();
      for (const op of await job.ahead()) {
        await expect(page.locator('[data-step]')).toBeVisible();
        const here = await lastingFaults(page);
        if (here.length > 0) wrong.set(op.id, here);
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
