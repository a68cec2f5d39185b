import { expect, type Page, test } from '@playwright/test';
import { Driven } from './drive.ts';
import { DemoServer } from './server.ts';
import { finish, heading, inHand, openBench, operation, step } from './steps.ts';
import { noViolations } from './violations.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(() => server.kill());

/** Goes on by keyboard until a step with this title is in hand. */
async function untilTitle(page: Page, title: RegExp) {
  for (let steps = 0; steps < 60; steps++) {
    if (title.test(await inHand(page))) return;
    await step(page);
  }
  throw new Error(`No step ${title} came.`);
}

test('from the bare frame to the report: moved over, tightened, tried, pressed home, weighed, handed over', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Story 1');
  await job.send({ type: 'policy', data: { change: { closing: 'tape' } } });
  await job.until('release:bezel-clips');
  await openBench(page, job);

  // what moves over, old and new side by side, and compared again
  const beside = page.getByRole('figure', { name: 'Old and new Display side by side' });
  await expect(beside.getByRole('list', { name: 'Pieces' })).toContainText('on the old one');
  await noViolations(page);
  await untilTitle(page, /^Compare old and new again$/);
  await expect(beside.getByRole('list', { name: 'Pieces' })).not.toContainText('on the old one');
  await expect(page.getByRole('combobox', { name: 'The new one has no place for' })).toBeVisible();

  // strips of tape from the shelf
  await untilTitle(page, /^Stick on the new seal/);
  await expect(page.getByRole('region', { name: 'Tape to cut' })).toContainText('4 strips');

  // a plug is pressed home and nobody is sure of its click
  await job.until('make:touch-plug');
  await page.reload();
  await expect(heading(page)).toBeVisible();
  await page.keyboard.press('2');
  await expect.poll(async () => (await job.events()).some(({ type }) => type === 'click')).toBe(true);

  // a screw of the lid is missing: it is not closed over that
  await job.until('make:connector-lid-screws');
  const lost = { joint: 'connector-lid-screws', point: 'c' };
  await job.send({ type: 'trouble', data: { kind: 'screw-lost', text: 'rolled off', ...lost } });
  await page.reload();
  await expect(heading(page)).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByText('Not taken')).toBeVisible();
  await page.getByRole('button', { name: 'Understood' }).click();
  await page.keyboard.press('m');
  await page.getByRole('button', { name: 'Found it' }).click();
  await page.keyboard.press('Escape');

  // crosswise, and the low one again
  const tightening = page.getByRole('region', { name: 'Tightening' }).first();
  await expect(tightening).toContainText('crosswise');
  await tightening.getByRole('button', { name: 'From the driver (simulated)' }).click();
  await expect(tightening.getByRole('status')).toContainText(/(\d) of \1 within torque spec/, { timeout: 20_000 });

  // the device answers for itself, and touch fails before the seal
  await untilTitle(page, /^Picture$/);
  await page.getByRole('button', { name: 'Let the device test itself (simulated)' }).click();
  const failed = page.getByRole('region', { name: 'Touch fails' });
  await expect(failed).toContainText(/Reseat the touch .*before it is closed: \d+ (s|min), \d+ %\./i, {
    timeout: 20_000,
  });
  await noViolations(page);
  await page
    .getByRole('button', { name: /^Reseat the/ })
    .first()
    .click();
  await untilTitle(page, /^Unplug and reseat it$/);
  for (let presses = 0; presses < 40 && !(await failed.isVisible()); presses++) await step(page);
  await page.getByRole('button', { name: 'Tried again: works' }).click();
  await expect(page.getByRole('region', { name: 'Touch fails' })).toHaveCount(0);

  // weighed, and felt all round
  await untilTitle(page, /^Keep it pressed$/);
  await expect(page.getByRole('region', { name: 'Load' })).toContainText('kg on a board and foam');
  await page.keyboard.press('6');
  const rim = page.getByRole('dialog', { name: 'Display: flush all round?' });
  await rim.getByRole('textbox', { name: 'Step at the middle right, mm' }).fill('0.4');
  await expect(rim).toContainText('Never press on');
  await noViolations(page);
  await rim.getByRole('button', { name: 'It stands off: record it' }).click();
  await expect(rim).toHaveCount(0);
  await page.keyboard.press('6');
  await rim.getByRole('button', { name: 'Flush all round' }).click();
  await expect(rim).toHaveCount(0);
  await finish(page);

  // it may go once its tape has half of its strength
  await page.getByRole('link', { name: 'Hand over' }).first().click();
  await expect(heading(page, 'Gone through')).toHaveText('Go through this with the owner');
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: /^It may go from \d\d:\d\d$/ })).toBeVisible();
  await noViolations(page);
  await page.getByRole('button', { name: 'It goes early' }).click();
  await expect(page.getByText('Say why it goes early')).toBeVisible();
  await page.getByRole('textbox', { name: 'It goes before its time, since' }).fill('the ferry leaves at noon');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Handed over to' }).fill('Aldis, deck');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Handed over' })).toBeVisible();
  const pdf = await page.request.get(`${server.url}/api/v1/jobs/${job.id}/report.pdf`);
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  expect((await pdf.body()).byteLength).toBeGreaterThan(10_000);
  await expect(operation(page)).toHaveCount(0);
});

test('the device’s own page asks the server for nothing, and every field of it answers', async ({ page }) => {
  const asked: string[] = [];
  page.on('request', (request) => asked.push(new URL(request.url()).pathname));
  await page.goto(`${server.url}/try?show=touch&columns=3&rows=4`);
  await expect(page.getByText('12 left')).toBeVisible();
  const { width, height } = page.viewportSize()!;
  for (let row = 0; row < 4; row++) {
    await page.mouse.move(2, ((row + 0.5) * height) / 4);
    await page.mouse.down();
    await page.mouse.move(width - 2, ((row + 0.5) * height) / 4, { steps: 12 });
    await page.mouse.up();
  }
  await expect(page.getByText('Every field answers')).toBeVisible();
  await page.goto(`${server.url}/try?show=fields`);
  await expect(page.getByRole('button', { name: 'white, 1 of 6: next' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'black, 2 of 6: next' })).toBeVisible();
  await page.goto(`${server.url}/try?show=nothing`);
  await expect(page.getByRole('heading')).toHaveText('Nothing to try at this address');
  expect(asked.filter((path) => path.startsWith('/api/'))).toEqual([]);
});

test('a trial in the middle makes it alive and dead again, and the work goes on', async ({ page }) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Trial 1');
  await job.send({ type: 'policy', data: { change: { test: 'after' } } });
  await job.until('fit:connector-lid');
  await openBench(page, job);
  await expect(operation(page).getByText(/^Worth trying here: Picture, Touch/)).toBeVisible();
  await page.keyboard.press('j');
  const panel = page.getByRole('dialog', { name: 'Try it now' });
  await noViolations(page);
  await panel.getByRole('button', { name: 'Works' }).first().click();
  await panel.getByRole('button', { name: 'Power off, battery off again' }).click();
  await panel.getByRole('button', { name: 'Battery in, power on' }).click();
  await expect(panel.getByRole('button', { name: 'Power off, battery off again' })).toBeVisible();
  await page.keyboard.press('Escape');
  const events = await job.events();
  expect(events.filter(({ data }) => JSON.stringify(data).includes('power-on:trial'))).toHaveLength(1);
  expect(events.some(({ type, data }) => type === 'test' && JSON.stringify(data).includes('trial'))).toBe(true);
  await job.until();
  await page.reload();
  await finish(page);
});
