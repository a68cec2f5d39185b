import { expect, test } from '@playwright/test';
import { Driven } from './drive.ts';
import { DemoServer } from './server.ts';
import { openBench } from './steps.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(() => server.kill());

test('screws are tightened in their order, a low one again, and snug has no figure', async ({ page }) => {
  const job = await Driven.begin(server.url, 'gannet-works', [{ remove: 'board' }], 'Torque 1');
  await job.until('make:board-screws');
  await openBench(page, job);
  const tightening = page.getByRole('region', { name: 'Tightening' }).first();
  await expect(tightening).toContainText('crosswise');
  await expect(tightening.getByRole('listitem')).toHaveCount(3);
  await expect(tightening.getByRole('listitem').first()).toContainText(/^1\w, /);
  await expect(tightening).toContainText('9 to 11 N·cm each');
  await tightening.getByRole('button', { name: 'From the driver (simulated)' }).click();
  await expect(tightening.getByRole('status')).toContainText('3 of 3 within torque spec');
  const peaks = (await job.events()).flatMap((each) => (each.type === 'tightened' ? [each.data.peak_Ncm] : []));
  expect(peaks).toHaveLength(4);
  expect(peaks.filter((peak) => peak < 9)).toHaveLength(1);
  await page.keyboard.press('Space');
  await expect.poll(async () => (await job.ahead())[0]!.id).not.toBe('make:board-screws');

  // the next by hand: low first, then in its window
  await job.until('make:holder-screws');
  await page.reload();
  const peak = tightening.getByRole('textbox', { name: /^Peak of/ });
  await peak.fill('two');
  await peak.press('Enter');
  await expect(tightening).toContainText('The peak as the driver shows it');
  for (const [typed, said] of [
    ['2', 'below: turn it on'],
    ['9', 'within spec'],
  ] as const) {
    await peak.fill(typed);
    await peak.press('Enter');
    await expect(tightening).toContainText(said);
  }
  await job.send({ type: 'policy', data: { change: { tightening: 'snug' } } });
  await page.reload();
  await expect(page.locator('[data-step]')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Tightening' })).toHaveCount(0);
});
