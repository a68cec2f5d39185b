import { expect, test } from '@playwright/test';

import { DemoServer } from './server.ts';
import { Driven } from './drive.ts';
import { heading, inHand, openBench, operation, step } from './steps.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
});

test('a touch test that fails before the seal is not passed by Space, and names what to press again', async ({
  page,
}) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Dead touch');
  await job.until('test:before');
  await openBench(page, job);
  await expect(operation(page)).toContainText('Touch');
  await expect(operation(page)).toContainText('Picture');
  await page.keyboard.press('Space');
  await expect.poll(async () => (await job.events()).filter(({ type }) => type === 'test').length).toBe(1);
  await expect(heading(page)).toHaveText('Touch');
  await page.keyboard.press('2');
  const panel = page.getByRole('region', { name: 'Touch fails' });
  for (let presses = 0; presses < 12 && !(await panel.isVisible()); presses++) await step(page);
  await expect(panel).toContainText('not to be closed');
  await expect(panel).toContainText(/Again: \d+ (s|min) now/);
  // Space goes at what is likely to blame, and never past the fault
  await page.keyboard.press('Space');
  await expect.poll(async () => (await job.events()).at(-1)!.type).toBe('targets');
  for (let presses = 0; presses < 8 && (await inHand(page)) !== 'Unplug and reseat it'; presses++) await step(page);
  await expect(heading(page)).toHaveText('Unplug and reseat it');
  for (let presses = 0; presses < 40 && !(await panel.isVisible()); presses++) await step(page);
  await expect(panel).toBeVisible();
  await expect(panel).toContainText('It was seen to: try it again.');
  expect((await job.events()).some(({ data }) => JSON.stringify(data).includes('close:display'))).toBe(false);
  await page.getByRole('button', { name: 'Tried again: works' }).click();
  await expect(panel).toHaveCount(0);
  await expect(page.locator('[data-step]')).toHaveText(/^All tried/);
  await page.keyboard.press('Space');
  await expect(heading(page)).toHaveText('Wipe it and look through it');
});
