import { expect, type Page, test } from '@playwright/test';
import { DemoServer } from './server.ts';
import { finish, here, jump, prepare, section } from './steps.ts';
import { noViolations } from './violations.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
});
test.use({ hasTouch: true });

/** What is asked is answered by a finger: a choice, a line, or a button of the bar. */
async function tap(page: Page, ...names: readonly (string | RegExp)[]) {
  for (const name of names) {
    const before = await page.getByRole('heading', { level: 1 }).textContent();
    const detail = await page.getByRole('main').innerText();
    await page
      .getByRole('button', { name, ...(typeof name === 'string' ? { exact: true } : {}) })
      .first()
      .tap();
    await expect.poll(async () => (await page.getByRole('main').innerText()) !== detail || before === null).toBe(true);
    await expect(page.getByRole('button', { name: 'Saving' })).toHaveCount(0);
  }
}

/** Taken in, prepared, and asked for what came off. */
async function begun(page: Page, name: string) {
  await page.goto(`${server.url}/unmapped`);
  await page.getByRole('textbox', { name: 'What it is called' }).fill(name);
  await page.getByRole('button', { name: 'I take it apart' }).tap();
  await page.waitForURL('**/intake');
  const address = page.url().replace('/intake', '');
  await here(page, 'Ines').catch(() => undefined);
  await page.goto(`${address}/intake`);
  await jump(page, /charge/i);
  await page.getByRole('textbox', { name: /Charge/ }).fill('20');
  await page.keyboard.press('Enter');
  await page.goto(`${address}/prepare`);
  await prepare(page, '20');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('What came off?');
  return address;
}

test('a device that has no map is taken apart by touch, through a killed server, put together, and repaired from its map', async ({
  page,
}) => {
  const address = await begun(page, 'Kittiwake Lite');
  await noViolations(page, 'what came off');
  await tap(page, 'Screws', 'PH000');
  await noViolations(page, 'how many');
  await tap(page, '2', 'Glue, tape, paste', 'Heated, then cut', 'It swings open', 'Display');
  await tap(page, 'Screws', '4', 'It is off', 'Lid', 'Plug', 'Battery', 'Plug', 'Display', 'It is off', 'Display');
  const mat = section(page, 'Mat');
  await expect(mat).toContainText('× 4');
  await server.kill();
  await server.up();
  await page.goto(address);
  // a screw that was overlooked belongs before the lid
  await tap(page, 'More', 'Insert earlier', /^Lid off/, 'Screws', '1');
  await expect(mat.getByRole('definition').first()).toHaveText('7');
  await tap(page, 'It would not move', 'Camera', /^Not known yet/);
  await tap(page, 'It is off', 'Shield', 'Plug', 'Camera', 'It is off', 'Camera', 'It is off', 'Battery');
  await tap(page, 'More', 'Look again', /^Camera/);
  await page.getByRole('textbox', { name: 'Its name' }).fill('Rear camera');
  await tap(page, 'It is called so');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Rear camera');
  await tap(page, 'That is all', 'More', 'Nothing more comes off');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('What held it?');
  await noViolations(page, 'what held it');
  await tap(page, 'I do not know', 'None of these', 'Put it together');
  await expect(section(page, 'Operation')).toBeVisible();
  await finish(page);
  await expect(section(page, 'Screws')).toContainText('none left on the mat');

  // the next day: another part of it, from the map that was made
  await page.goto(`${server.url}/new?map=kittiwake-lite`);
  await page.getByRole('textbox', { name: 'Find a part' }).fill('rear cam');
  await page.keyboard.press('Enter');
  await expect(section(page, 'Plan')).toContainText('hands-on');
  const maps = (await (await page.request.get(`${server.url}/api/v1/device-maps/kittiwake-lite`)).json()) as {
    joints: readonly { readonly id: string; readonly holds: readonly string[] }[];
    origin: { guesses: readonly object[] };
  };
  expect(maps.joints.filter(({ holds }) => holds.includes('bracket'))).toHaveLength(2);
  expect(maps.origin.guesses.length).toBeGreaterThan(0);
});

test('an unmapped device needs a name, and what can not be is refused with a word', async ({ page }) => {
  await page.goto(`${server.url}/devices`);
  await page.getByRole('link', { name: 'Take apart one without a map' }).click();
  await page.getByRole('button', { name: 'I take it apart' }).click();
  await expect(page.getByText('Give it a name that your workshop will know it by.')).toBeVisible();
  await begun(page, 'Kittiwake Lite');
  await tap(page, 'Screws', 'Not known');
  await page.getByRole('textbox', { name: 'Or how many' }).fill('500');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Give a whole number, 1 to 100')).toBeVisible();
  await page.getByRole('textbox', { name: 'Or how many' }).fill('16');
  await page.keyboard.press('Enter');
  await expect(section(page, 'Mat')).toContainText('× 16');
  await page.keyboard.press('Escape');
  await page.keyboard.press('u');
  await expect(section(page, 'Mat')).not.toContainText('× 16');
});
