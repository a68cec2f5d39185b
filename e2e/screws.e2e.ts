import { expect, type Page, test } from '@playwright/test';
import { Driven } from './drive.ts';
import { DemoServer } from './server.ts';
import { heading, here, openBench } from './steps.ts';

// a camera that shows a pattern, and is granted: the browser's own stand-in
const FAKE_CAMERA = ['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'];
test.use({
  launchOptions: {
    executablePath: process.env['NIBREL_CHROMIUM'] ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', ...FAKE_CAMERA],
  },
});

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(() => server.kill());

/** What would be heard, kept in a list; speech is switched on as a person would have it. */
async function listening(page: Page) {
  await page.addInitScript(() => {
    const heard: string[] = [];
    Object.assign(window, { heard });
    speechSynthesis.speak = (said) => void heard.push(said.text);
    const settings = { state: { speech: true, sound: false, person: 'Ines', people: ['Ines'] }, version: 0 };
    localStorage.setItem('nibrel.bench', JSON.stringify(settings));
  });
  return () => page.evaluate(() => (window as unknown as { heard: string[] }).heard);
}

test('a pedal strips it to the board while it speaks; the last lead is named, and three steps are photographed', async ({
  page,
}) => {
  const job = await Driven.begin(server.url, 'gannet-works', [{ remove: 'board' }], 'Pedal 1');
  const heard = await listening(page);
  await page.goto(job.address);
  let pictures = 0;
  for (let presses = 0; presses < 60; presses++) {
    await expect(page.locator('[data-step]')).toBeEnabled();
    const ahead = await job.ahead();
    const before = ahead.length;
    if (!ahead.some(({ id }) => id === 'lift:board')) break;
    if (ahead[0]!.id === 'release:port-plug') {
      // all plugs but one, by its tick
      await page
        .getByRole('list', { name: 'In this step' })
        .getByRole('button', { name: /Right coax off/ })
        .click();
      await expect.poll(async () => (await job.ahead())[0]!.id).toBe('release:right-snap-top');
      await lastLead(page);
      continue;
    }
    if (PICTURED.includes(ahead[0]!.id)) {
      await page.keyboard.press('v');
      await expect(page.getByText('Kept with this step')).toBeVisible();
      pictures++;
    }
    await page.keyboard.press('PageDown');
    await expect.poll(async () => (await job.ahead()).length).toBeLessThan(before);
  }
  expect(pictures).toBe(3);
  const photos = (await job.events()).filter(({ type }) => type === 'photo');
  expect(photos.map(({ data }) => (data as { step: string }).step)).toEqual(PICTURED);
  const said = (await heard()).join(' ');
  expect(said).toContain('Take out 3 screws');
  expect(said).toContain('Connector lid');
  await page.goto(`${job.address}/record`);
  await expect(page.getByRole('region', { name: 'Pictures along the time' }).getByRole('img')).toHaveCount(4);
});

const PICTURED = ['release:hidden-screw', 'release:lid-screws', 'release:holder-screws'];

async function lastLead(page: Page) {
  await page.keyboard.press('q');
  const panel = page.getByRole('dialog', { name: 'Why will it not come out?' });
  await panel.getByRole('combobox', { name: 'Part' }).selectOption({ label: 'Main board' });
  await expect(panel.getByRole('region', { name: 'Still holding' })).toContainText('Left antenna lead');
  await page.keyboard.press('Escape');
  await expect(panel).toHaveCount(0);
}

test('a spilled mat is sorted from the caliper, save two that it calls ambiguous, and taken into the ledger', async ({
  page,
}) => {
  const { jobs } = (await (await fetch(`${server.url}/api/v1/jobs`)).json()) as {
    jobs: { id: string; title: string }[];
  };
  const { id } = jobs.find(({ title }) => title === 'Deck crane 1')!;
  await page.goto(`${server.url}/jobs/${id}`);
  await here(page, 'Ines');
  await page.keyboard.press('s');
  await page.getByRole('navigation', { name: 'Screws' }).getByRole('link', { name: 'Spilled' }).click();
  await page.getByRole('button', { name: 'From the caliper (simulated)' }).click();
  await expect(page.getByText('20 screws picked up')).toBeVisible();
  await expect(page.getByRole('button', { name: 'From the caliper (simulated)' })).toBeEnabled();
  // what was measured is still there after a look elsewhere
  await page.getByRole('link', { name: 'Mix-ups' }).click();
  await page.getByRole('link', { name: 'Spilled' }).click();
  await expect(page.getByText('20 screws picked up')).toBeVisible();
  await page.getByRole('button', { name: 'Sort them back' }).click();
  await expect(page.getByRole('region', { name: 'Ambiguous' })).toContainText('2 screws ambiguous');
  await expect(page.getByRole('region', { name: 'Ambiguous' })).toContainText('no harm either way');
  await expect(page.getByRole('region', { name: 'Strangers' })).toContainText('1 screw from elsewhere');
  await expect(page.getByRole('region', { name: 'Missing' })).toContainText('1 hole will lack one');
  await page.getByRole('button', { name: 'Take it into the ledger' }).click();
  await expect(page.getByRole('button', { name: 'In the ledger' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.waitForURL(/\/jobs\/[^/]+$/);
  await expect(page.getByRole('region', { name: 'Mat' })).toContainText('1 screw is missing');
  await page.keyboard.press('m');
  const missing = page.getByRole('dialog', { name: 'Missing screws' });
  await expect(missing).toContainText('spilled after that');
  await missing.getByRole('button', { name: 'Note it to order' }).click();
  await expect(missing.getByRole('button', { name: 'Noted to order' })).toBeVisible();
});

test('a screw of the wrong length is refused at its hole with the harm named, and a new one goes in', async ({
  page,
}) => {
  const job = await Driven.begin(server.url, 'gannet-works', [{ remove: 'camera' }], 'Too long 1');
  await job.until('make:clamp-screw');
  await openBench(page, job);
  await page.keyboard.press('s');
  await page.getByRole('link', { name: 'One in doubt' }).click();
  const length = page.getByRole('textbox', { name: 'Length, mm' });
  for (const wrong of ['-1', '900', 'long']) {
    await length.fill(wrong);
    await page.keyboard.press('Enter');
    await expect(page.getByText('A length in mm, more than 0 and up to 200')).toBeVisible();
  }
  await length.fill('6,2');
  await page.getByRole('combobox', { name: 'Drive' }).selectOption('PH000');
  await length.press('Enter');
  await expect(page.getByText('It goes nowhere in this device')).toBeVisible();
  await page.getByRole('button', { name: 'Another screw' }).click();
  await length.fill('4.9');
  await length.press('Enter');
  // said for this hole all the same by the event: it is measured where it would go in
  await job.send({ type: 'screw-measured', data: { joint: 'clamp-screw', point: 'k1', length_mm: 6.2 } });
  await page.goto(job.address);
  await expect(heading(page)).toContainText('Put in 1 screw');
  await page.keyboard.press('Space');
  await expect(page.getByRole('alert')).toContainText('sticks out 1.6 mm, against the display');
  await page.getByRole('button', { name: 'Put in new screws' }).click();
  await expect(heading(page)).not.toContainText('Put in 1 screw');
});

test('the mat is printed from its page, and the ways of keeping have their figures', async ({ page }) => {
  const job = await Driven.begin(server.url, 'gannet-works', [{ remove: 'board' }], 'Mat 1');
  await openBench(page, job);
  await page.keyboard.press('s');
  await expect(page.getByRole('region', { name: 'What comes out' })).toContainText(
    'One clamp for Lamp flex and Rear camera',
  );
  await page.getByRole('link', { name: 'Mat to print' }).click();
  const link = page.getByRole('link', { name: 'All sheets to print, PDF' });
  const pdf = await page.request.get((await link.getAttribute('href'))!.replace(/^/, server.url));
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  await page.getByRole('link', { name: 'How they are kept' }).click();
  const apart = page.getByRole('article', { name: 'Look-alikes apart' });
  await expect(apart).toContainText('to be expected');
  await apart.getByRole('button', { name: 'Keep them this way' }).click();
  await expect(apart).toContainText('This is how this repair keeps them');
  await page.getByRole('link', { name: 'Mix-ups' }).click();
  await page.getByRole('button', { name: /^G/ }).click();
  await expect(page.getByRole('region', { name: 'Where one would do harm' })).toContainText(
    'sticks out 1.5 mm, into the board',
  );
  await page.keyboard.press('Escape');
  await job.until('release:lid-screws');
  await page.goto(job.address);
  const mat = page.getByRole('region', { name: 'Mat' });
  await expect(mat).toContainText('Into container');
  // what lies in a container stays there when it is planned anew, and all of it stays in sight
  const containers = async () => (await mat.getByText(/^Container \d/).allTextContents()).toSorted();
  await expect(mat.getByText(/^Container \d/).first()).toBeVisible();
  const before = await containers();
  await job.send({ type: 'targets', data: { targets: [{ remove: 'board' }, { remove: 'speaker' }] } });
  await page.reload();
  await expect(mat.getByText(/^Container \d/).first()).toBeVisible();
  expect(await containers()).toEqual(before);
});

test('a camera that is refused says what to do, and a file is kept in its place', async ({ browser }) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
  });
  const job = await Driven.begin(server.url, 'dunlin-open', [{ remove: 'cell' }], 'No camera 1');
  await openBench(page, job);
  await page.keyboard.press('y');
  await expect(page.getByText('The camera was refused')).toBeVisible();
  // one pixel, as a PNG
  const pixel = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
  await page.getByLabel('Pick a file').setInputFiles({
    name: 'mat.png',
    mimeType: 'image/png',
    buffer: Buffer.from(pixel, 'base64'),
  });
  await expect(page.getByText('Kept, of the mat')).toBeVisible();
  await page.keyboard.press('u');
  await expect.poll(async () => (await job.events()).at(-1)!.type).toBe('undo');
  await context.close();
});

test('may it be left now, and a click that nobody is sure of', async ({ page }) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ remove: 'cell' }], 'Leaving 1');
  await job.until('release:connector-lid-screws');
  await openBench(page, job);
  await page.keyboard.press('z');
  const leaving = page.getByRole('dialog', { name: 'Do not leave it yet' });
  await expect(leaving.getByRole('list', { name: 'What turns bad' })).toContainText('The battery is connected');
  await expect(leaving).toContainText('Then it lies safe');
  await page.keyboard.press('Escape');
  await job.until('make:cell-plug');
  await page.goto(job.address);
  await expect(page.getByRole('button', { name: 'Done, it clicked' })).toBeVisible();
  await page.keyboard.press('2');
  await expect
    .poll(async () => (await job.events()).at(-1)!)
    .toMatchObject({
      type: 'click',
      data: { joint: 'cell-plug', heard: 'not-sure' },
    });
});
