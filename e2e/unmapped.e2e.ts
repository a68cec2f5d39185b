import { expect, type Page, test } from '@playwright/test';
import sharp from 'sharp';
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
  const address = await begun(page, 'Dabchick One');
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
  await page.goto(`${server.url}/new?map=dabchick-one`);
  await page.getByRole('textbox', { name: 'Find a part' }).fill('rear cam');
  await page.keyboard.press('Enter');
  await expect(section(page, 'Plan')).toContainText('hands-on');
  const maps = (await (await page.request.get(`${server.url}/api/v1/device-maps/dabchick-one`)).json()) as {
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
  await begun(page, 'Dabchick One');
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

/** A light device on a dark mat, seen askew; beneath its lid, once that is off, there is a plug. */
function photograph(isLidOff: boolean): Promise<Buffer> {
  const lid = `<polygon points="520,200 1050,230 1060,500 510,480" fill="${isLidOff ? '#3d7a55' : '#8a9398'}"/>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1200"><rect width="1600" height="1200" fill="#2b3338"/>
    <polygon points="480,120 1090,160 1150,1090 430,1060" fill="#c9cfd2"/>${lid}</svg>`;
  return sharp(Buffer.from(svg)).jpeg().toBuffer();
}

test('a photograph is set straight by its corners, places are pressed on it, and what came into sight is evidence', async ({
  page,
}) => {
  const address = await begun(page, 'Dabchick One');
  const on = page.getByRole('group', { name: 'Photograph, front up' });
  const shown = async () => ((await on.count()) > 0 ? on.locator('image').getAttribute('href') : null);
  const take = async (isLidOff: boolean) => {
    const before = await shown();
    await page.getByRole('button', { name: 'Photograph', exact: true }).first().click();
    const buffer = await photograph(isLidOff);
    await page.getByLabel('Pick a file').setInputFiles({ name: 'layer.jpg', mimeType: 'image/jpeg', buffer });
    await expect.poll(async () => (await shown()) !== before && (await shown()) !== null).toBe(true);
  };
  const press = async (x: number, y: number) => {
    const box = (await on.boundingBox())!;
    await on.click({ position: { x: box.width * x, y: box.height * y } });
  };
  await tap(page, 'It is off', 'Back cover');
  await take(false);
  // its corners, put right by key
  await tap(page, 'More', 'Corners of the photograph');
  await noViolations(page, 'corners');
  const corner = page.getByRole('slider', { name: 'Upper left corner' });
  await expect(corner).toHaveAttribute('aria-valuetext', '30 % across, 10 % down');
  await corner.focus();
  for (let n = 0; n < 2; n++) await page.keyboard.press('ArrowRight');
  await expect(corner).toHaveAttribute('aria-valuetext', '31 % across, 10 % down');
  await tap(page, 'These are its corners');
  await press(0.4, 0.1);
  await press(0.6, 0.3);
  await tap(page, 'It is off', 'Lid');
  await take(true);
  await press(0.5, 0.2);
  await tap(page, 'Plug', 'Camera');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Was it in sight here?');
  await tap(page, 'No, it was hidden', 'It is off', 'Camera', 'More', 'Nothing more comes off');
  await page.getByRole('button', { name: 'Put it together' }).click();
  await expect(section(page, 'Operation')).toBeVisible();
  const job = address.split('/').at(-1);
  const { map: id } = (await (await page.request.get(`${server.url}/api/v1/jobs/${job}`)).json()) as { map: string };
  const map = (await (await page.request.get(`${server.url}/api/v1/device-maps/${id}`)).json()) as {
    origin: { guesses: { joint?: string; entry: object; certainty: string }[] };
  };
  expect(map.origin.guesses.filter(({ joint }) => joint === 'plug-1')).toContainEqual(
    expect.objectContaining({ entry: { part: 'bracket', until: 'off' }, certainty: 'certain', why: 'sight' }),
  );
});
