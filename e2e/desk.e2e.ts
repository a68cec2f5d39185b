import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { DemoServer } from './server.ts';
import { jump, takeIn } from './steps.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
});

/** A picture of many pixels, drawn by the browser. */
async function picture(page: Page, width: number, height: number): Promise<Buffer> {
  const base64 = await page.evaluate(
    async ([w, h]) => {
      const canvas = new OffscreenCanvas(w!, h!);
      const context = canvas.getContext('2d')!;
      for (let y = 0; y < h!; y += 40) {
        for (let x = 0; x < w!; x += 40) {
          context.fillStyle = `hsl(${(x * 7 + y * 13) % 360} 60% ${30 + ((x + y) % 40)}%)`;
          context.fillRect(x, y, 40, 40);
        }
      }
      const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.9 });
      const bytes = new Uint8Array(await blob.arrayBuffer());
      let text = '';
      for (const byte of bytes) text += String.fromCharCode(byte);
      return btoa(text);
    },
    [width, height],
  );
  return Buffer.from(base64, 'base64');
}

/** A PNG of 77 bytes that says it has 100 megapixels. */
function bomb(): Buffer {
  const bytes = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  bytes.writeUInt32BE(10_000, 16);
  bytes.writeUInt32BE(10_000, 20);
  return bytes;
}

test('a barred board is sent back with the days that are left, and a calendar entry', async ({ page }) => {
  await page.goto(`${server.url}/parts`);
  await expect(page.getByRole('heading', { name: 'Parts desk' })).toBeVisible();
  await page.keyboard.press('a');
  await page.getByRole('combobox', { name: 'For the repair' }).selectOption({ label: 'Engine room 6' });
  await page.getByRole('textbox', { name: 'From, and as what' }).fill('Old Mole Spares, used');
  await page.getByRole('button', { name: 'It is here' }).click();
  const board = page.getByRole('article', { name: 'Lower board' });
  await expect(board).toContainText('Nobody has looked at it yet');
  const number = board.getByRole('textbox', { name: 'On the label' });
  for (const [typed, told] of [
    ['00999901000025', '14 digits'],
    ['0099990100002O9', 'something else than digits'],
    ['009999010000258', 'should be 9'],
    ['0099990100002599', '16 digits, no check digit'],
  ] as const) {
    await number.fill(typed);
    await expect(board).toContainText(told);
  }
  await number.fill('00999901 000025 9');
  await page.keyboard.press('Enter');
  await board.getByRole('textbox', { name: 'On the screen' }).fill('009999010000259');
  await page.keyboard.press('Enter');
  await expect(board).toContainText('The same in all places');
  await board.getByRole('button', { name: 'Ask (simulated)' }).click();
  await expect(board.getByRole('list', { name: 'Answers' })).toContainText('barred by a network');
  await expect(board.getByRole('list', { name: 'Answers' })).toContainText('simulated');
  await expect(board.getByRole('heading', { level: 1 })).toHaveText('Send back');
  await expect(board).toContainText('30 days left');
  await expect(board.getByRole('button', { name: 'Use it all the same' })).toBeDisabled();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    board.getByRole('link', { name: 'into the calendar' }).click(),
  ]);
  expect(readFileSync(await download.path(), 'utf8')).toContain('DTSTART;VALUE=DATE:');
  await board.getByRole('button', { name: 'It goes back' }).click();
  await board.getByRole('button', { name: 'Sent back today' }).click();
  await expect(board.getByRole('heading', { level: 1 })).toHaveText('Sent back');
});

test('photographs are stored and shown, by content and not by name', async ({ page }) => {
  await takeIn(page, server.url, 'dunlin-open', 'port-board', 'Lookout 3');
  await jump(page, /The owner says/);
  const files = page.getByLabel('Photographs from files');
  await files.setInputFiles([
    { name: 'holiday.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('MZ this is a program, not a picture') },
    { name: 'bomb.png', mimeType: 'image/png', buffer: bomb() },
  ]);
  await expect(page.getByRole('alert')).toContainText('holiday.jpg: This is no photograph');
  await expect(page.getByRole('alert')).toContainText('100 megapixels');
  await files.setInputFiles({ name: 'back.txt', mimeType: 'image/jpeg', buffer: await picture(page, 4000, 3000) });
  const shown = page.getByRole('list', { name: 'Photographs' }).getByRole('img');
  await expect(shown).toHaveCount(1);
  await expect.poll(() => shown.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(240);
  await shown.click();
  const large = page.getByRole('dialog').getByRole('img');
  await expect.poll(() => large.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(1600);
  await page.getByRole('dialog').getByRole('button', { name: 'Take it back' }).click();
  await expect(shown).toHaveCount(0);
});
