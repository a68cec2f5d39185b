import { expect, test } from '@playwright/test';

import { DemoServer } from './server.ts';
import { Driven } from './drive.ts';
import { openBench, operation } from './steps.ts';

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
  await expect(operation(page).locator('[data-step]')).toHaveText(/^Touch works/);
  await page.keyboard.press('2');
  const panel = page.getByRole('region', { name: 'Touch fails' });
  await expect(panel).toContainText('not to be closed');
  const button = operation(page).locator('[data-step]');
  const pressed = async () => {
    await page.keyboard.press('Space');
    return button.textContent();
  };
  await expect.poll(pressed, { timeout: 40_000 }).toMatch(/fails: try it again, or decide/);
  await expect(panel).toContainText(/Again: \d+ (s|min) now/);
  for (let presses = 0; presses < 8; presses++) await pressed();
  await expect(button).toHaveText(/fails: try it again, or decide/);
  expect((await job.events()).some(({ data }) => JSON.stringify(data).includes('close:display'))).toBe(false);
  await panel.getByRole('button', { name: 'Tried again: works' }).click();
  await expect(panel).toHaveCount(0);
  await expect(button).toHaveText(/^All tried/);
  await page.keyboard.press('Space');
  await expect(operation(page).getByRole('heading', { level: 1 })).toHaveText('Wipe it and look through it');
});
