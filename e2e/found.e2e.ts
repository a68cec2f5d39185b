import { expect, test } from '@playwright/test';
import { Driven } from './drive.ts';
import { DemoServer } from './server.ts';
import { heading, openBench, operation } from './steps.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(() => server.kill());

test('what is not as mapped changes the plan, and a bond is closed as it is decided on sight', async ({ page }) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Found 1');
  await job.until('release:connector-lid-screws');
  await openBench(page, job);
  await expect(heading(page)).toContainText('Take out 4 screws');
  await page.keyboard.press('o');
  const panel = page.getByRole('dialog', { name: 'Not as mapped' });
  await panel.getByRole('combobox', { name: 'Part' }).selectOption({ label: 'Connector lid' });
  await panel.getByRole('textbox', { name: 'Note' }).fill('never came back from a repair');
  await panel.getByRole('button', { name: 'Record it' }).click();
  await expect(heading(page)).toContainText('Unplug the battery');
  expect((await job.ahead()).some(({ part }) => part === 'connector-lid')).toBe(false);

  // it lies over the battery's plug: it comes off first, and goes back after it
  await page.keyboard.press('o');
  await panel.getByRole('radio', { name: 'there is one more' }).click();
  await panel.getByRole('textbox', { name: 'What is it' }).fill('Foil');
  await panel.getByRole('button', { name: 'Record it' }).click();
  await expect(operation(page)).toContainText('Take it off');
  await expect(operation(page)).toContainText('Foil');
  await page.keyboard.press('Space');
  await expect(heading(page)).toContainText('Unplug the battery');

  await job.until('clean:front-seal');
  await page.reload();
  await expect(operation(page)).toContainText('Scrape off the old adhesive');
  await page.keyboard.press('k');
  const closing = page.getByRole('dialog', { name: 'How it is closed' });
  await expect(closing.getByRole('button', { name: 'Renew it, as planned' })).toBeVisible();
  await closing.getByRole('button', { name: 'Keep the old one' }).click();
  await expect(operation(page)).not.toContainText('Scrape off the old adhesive');
  await job.until();
  await page.goto(`${job.address}/record`);
  await expect(page.getByRole('main')).toContainText('Connector lid is not there: never came back from a repair');
  await expect(page.getByRole('region', { name: 'Seals' })).toContainText('no longer water-resistant');
  await expect(page.getByRole('region', { name: 'Corrections of the map' })).toContainText(
    'Connector lid was not there',
  );
});

test('a part that fails its close look turns the job into its renewal', async ({ page }) => {
  const job = await Driven.begin(server.url, 'petrel-glass', [{ full: true }], 'Found 2');
  const inspected = (await job.ahead()).find(({ name }) => name === 'inspect')!;
  await job.until(inspected.id);
  await openBench(page, job);
  await expect(operation(page)).toContainText('Look at it closely');
  await page.keyboard.press('2');
  await expect(operation(page)).not.toContainText('Look at it closely');
  await expect(page.getByRole('banner')).toContainText('replace');
});

test('before anything is pulled, one key says what still holds it', async ({ page }) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ remove: 'rear-camera' }], 'Found 3');
  await job.until('release:rear-camera-plug');
  await openBench(page, job);
  await expect(heading(page)).toBeVisible();
  await page.keyboard.press('q');
  const panel = page.getByRole('dialog', { name: 'Why will it not come out?' });
  await expect(panel.getByRole('combobox', { name: 'Part' })).toHaveValue('rear-camera');
  await expect(panel.getByRole('region', { name: 'Still holding' }).getByRole('listitem')).toHaveCount(2);
  await panel.getByRole('combobox', { name: 'Part' }).selectOption({ label: 'Heat spreader' });
  await expect(panel.getByRole('region', { name: /Sticks a little/ })).toContainText('Thermal material');
  await panel.getByRole('button', { name: /Not as mapped/ }).click();
  await expect(page.getByRole('dialog', { name: 'Not as mapped' })).toBeVisible();
});
