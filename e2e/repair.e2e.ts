import { expect, test } from '@playwright/test';
import { Driven } from './drive.ts';
import { DemoServer } from './server.ts';
import {
  confirms,
  finish,
  heading,
  here,
  inHand,
  openBench,
  operation,
  picked,
  prepare,
  step,
  taken,
} from './steps.ts';
import { noViolations } from './violations.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
});

test('a Tern 5 display is replaced by keyboard alone, through a killed server, to a finished record', async ({
  page,
}) => {
  await page.goto(server.url);
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText('Planning');
  await page.keyboard.press('n');
  await picked(page, 'tern', 'displ');
  await page.getByRole('button', { name: 'What it takes' }).click();
  await expect(page.getByRole('region', { name: 'Moves over to the new part' })).toContainText('Earpiece');
  await page.keyboard.press('Escape');
  await taken(page, 'Galley 7');
  await page.keyboard.press('Space');
  await expect(page.getByRole('region', { name: 'Functions tried' })).toContainText('Picture');
  await page.keyboard.press('Enter');
  await page.waitForURL('**/prepare');
  await prepare(page, '20');

  for (let steps = 0; steps < 14; steps++) await step(page);
  const left = (await operation(page).locator('p').first().textContent()) ?? '';
  const mat = page.getByRole('region', { name: 'Mat' });
  const onMat = await mat.getByRole('definition').first().textContent();
  expect(Number(onMat)).toBeGreaterThan(0);

  await server.kill();
  await page.keyboard.press('Space');
  await expect(page.getByRole('alert')).toContainText('does not answer');
  await page.keyboard.press('n');
  await page.getByRole('dialog').getByRole('textbox').fill('the lamp went out');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('2 entries not saved yet');
  await server.up();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(operation(page).getByText(left)).toHaveCount(0);

  await page.reload();
  await expect(operation(page)).toBeVisible();
  await finish(page);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Galley 7');
  await expect(page.getByRole('region', { name: 'Screws' })).toContainText('none left on the mat');
  await expect(page.getByRole('region', { name: 'Tests' })).toContainText('works');
  await expect(page.getByRole('region', { name: 'What happened' })).toContainText('Finished');
  await expect(page.getByRole('region', { name: 'What happened' })).toContainText('the lamp went out');
});

test('two windows on one job do not do the same step twice', async ({ browser }) => {
  const context = await browser.newContext();
  const [one, two] = [await context.newPage(), await context.newPage()];
  await one.goto(server.url);
  await one
    .getByRole('link', { name: /Deck crew 14/ })
    .first()
    .click();
  await here(one, 'Tomas');
  await two.goto(one.url());
  await expect(operation(two)).toContainText('Switch it off');
  await expect(operation(one)).toContainText('Switch it off');
  // the second window hears nothing of the first before its own press
  let hear = () => {};
  const pressed = new Promise<void>((resolve) => (hear = resolve));
  await two.route('**/api/v1/jobs/*/events*', async (route) => {
    if (route.request().method() === 'GET') await pressed;
    await route.continue();
  });
  await one.keyboard.press('Space');
  await expect(operation(one)).not.toContainText('Switch it off');
  await two.keyboard.press('Space');
  hear();
  await expect(operation(two)).not.toContainText('Switch it off');
  const told = await one.evaluate(async (url) => {
    const response = await fetch(`/api/v1/jobs/${url.split('/').at(-1)}/events`);
    return ((await response.json()) as { events: { data: { steps?: { id: string }[] } }[] }).events;
  }, one.url());
  expect(told.filter((event) => event.data.steps?.some((each) => each.id === 'power-off'))).toHaveLength(1);
  await context.close();
});

test('a held key counts once, undo takes it back, and trouble adds a round of heat', async ({ page }) => {
  await page.goto(server.url);
  await page
    .getByRole('link', { name: /Deck crew 14/ })
    .first()
    .click();
  await here(page, 'Ines');
  const mat = page.getByRole('region', { name: 'Mat' });
  for (let steps = 0; steps < 12; steps++) {
    const title = await inHand(page);
    if (title === 'Take out 2 screws') break;
    await step(page);
  }
  await expect(operation(page)).toContainText('Take out 2 screws');
  await page.keyboard.press('l');
  await expect(mat.getByRole('definition').first()).toHaveText('1');
  await page.keyboard.down('Space');
  for (let repeat = 0; repeat < 5; repeat++) await page.keyboard.down('Space');
  await page.keyboard.up('Space');
  const heading = operation(page).getByRole('heading', { level: 1 });
  await expect(heading).not.toHaveText('Take out 2 screws');
  await expect(mat.getByRole('definition').first()).toHaveText('2');
  await page.keyboard.press('u');
  await expect(heading).toHaveText('Take out 2 screws');
  for (let steps = 0; steps < 12 && (await inHand(page)) !== 'Cut: bottom'; steps++) await step(page);
  await expect(heading).toHaveText('Cut: bottom');
  await page.keyboard.press('t');
  await page.getByRole('dialog', { name: 'What is wrong?' }).getByRole('button', { name: 'It will not lift' }).click();
  await page.getByRole('textbox', { name: 'Note' }).fill('stiff at the top');
  await page.keyboard.press('Enter');
  await expect(operation(page)).toContainText('Heat it');
  // why, at length
  await page.keyboard.press('b');
  await expect(operation(page)).toContainText('more heat, not more force');
});

test('pressing a later part takes all that comes before it in one press', async ({ page }) => {
  await page.goto(`${server.url}/new?map=dunlin-open&part=port-board`);
  await taken(page, '');
  await page.keyboard.press('Enter');
  await page.waitForURL('**/prepare');
  await prepare(page, '60');
  await expect(operation(page)).toContainText('Switch it off');
  // the mid cover lies beneath the back: pressed through it, as from a list
  await page.getByRole('button', { name: 'Mid cover' }).dispatchEvent('click');
  await expect(page.getByRole('dialog')).toContainText('9 screws');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Mat' }).getByRole('definition').first()).toHaveText('9');
  await page.keyboard.press('c');
  await page.getByRole('button', { name: 'Close it up without replacing anything' }).click();
  await finish(page);
  await expect(page.getByRole('region', { name: 'Screws' })).toContainText('none left on the mat');
});

test('what is done in one press is listed with its screws and what is to be known of it, and ticked one by one', async ({
  page,
}) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Ticks');
  await job.until('release:connector-lid-screws');
  await openBench(page, job);
  await expect(heading(page)).toHaveText('Take out 4 screws');
  const ticks = page.getByRole('list', { name: 'In this step' });
  await expect(ticks.getByRole('button')).toHaveCount(2);
  // the screw of the second joint, in millimetres
  await expect(ticks).toContainText(/Take out 1 screw.* mm × 1/);
  await ticks.getByRole('button').first().click();
  await expect(heading(page)).toHaveText('Take out 1 screw');
  expect((await job.events()).at(-1)).toMatchObject({
    type: 'did',
    data: { steps: [{ id: 'release:connector-lid-screws' }] },
  });
});

test('stop now holds the repair until the lead clears it', async ({ page }) => {
  await page.goto(server.url);
  await page
    .getByRole('link', { name: /Purser 3/ })
    .first()
    .click();
  await here(page, 'Ines');
  await expect(operation(page)).toBeVisible();
  await page.keyboard.press('x');
  await expect(page.getByRole('dialog')).toContainText('Hands off the cell');
  await page.getByRole('combobox', { name: 'What is it' }).selectOption({ label: 'The cell swells' });
  await page.getByRole('button', { name: 'Stop this repair' }).click();
  await expect(page.getByRole('region', { name: 'Stopped' })).toContainText('The lead decides');
  await page.keyboard.press('Space');
  await expect(page.getByRole('region', { name: 'Stopped' })).toBeVisible();
  await page.getByRole('button', { name: 'The lead decides' }).click();
  await page.getByRole('textbox', { name: 'Lead' }).fill('Maren');
  await page.getByRole('textbox', { name: 'Reason' }).fill('Measured, within 8 percent');
  await page.keyboard.press('Enter');
  await confirms(page, 'Maren');
  await expect(operation(page)).toBeVisible();
});

test('a map is imported from a file, refused with its place, and planned', async ({ page }) => {
  await page.goto(`${server.url}/devices`);
  const file = page.getByLabel('Import a map');
  await file.setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from('{"format":') });
  await expect(page.getByRole('dialog')).toContainText('not JSON');
  await page.keyboard.press('Escape');
  await file.setInputFiles({
    name: 'large.json',
    mimeType: 'application/json',
    buffer: Buffer.alloc(3 * 1024 * 1024, 32),
  });
  await expect(page.getByRole('dialog')).toContainText('larger than 2 MB');
  await page.keyboard.press('Escape');
  await file.setInputFiles({
    name: 'empty.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":"nibrel.device-map"}'),
  });
  await expect(page.getByRole('dialog')).toContainText('parts');
  await page.keyboard.press('Escape');
  await file.setInputFiles(new URL('../docs/examples/sample.json', import.meta.url).pathname);
  await page.getByRole('button', { name: 'Store it' }).click();
  await page.waitForURL('**/devices/sample');
  await page.getByRole('combobox', { name: 'Part or joint' }).selectOption({ label: 'Battery' });
  await expect(page.getByRole('region', { name: 'The way to it' })).toContainText('Pull the tabs out');
  await page.getByRole('link', { name: 'Replace it' }).click();
  await expect(page.getByRole('region', { name: 'Plan', exact: true })).toContainText('hands-on');
});

// in the dark only colours are others
for (const [colorScheme, rules] of [
  ['light', []],
  ['dark', ['color-contrast']],
] as const) {
  test(`the main views have no accessibility violations, ${colorScheme}`, async ({ browser }) => {
    const context = await browser.newContext({ colorScheme, reducedMotion: 'reduce' });
    const page = await context.newPage();
    await page.goto(server.url);
    await expect(page.getByRole('link', { name: /Purser 3/ }).first()).toBeVisible();
    const bench = await page
      .getByRole('link', { name: /Purser 3/ })
      .first()
      .getAttribute('href');
    for (const [path, ready] of [
      ['/', /Purser 3/],
      ['/devices/tern-5', /Tern 5/],
      ['/new?map=tern-5&part=display', /hands-on/],
      ['/new', /Which device/],
      ['/new?map=tern-5', /Which part/],
      ['/records', /Records/],
      ['/parts', /Parts desk/],
      ['/kit', /Tools and bits/],
      ['/schools', /Where practitioners disagree/],
      ['/heat/shearwater-11', /source on/],
      ['/pick-card/tern-5', /Page to print/],
      [`${bench}/intake`, /The owner says/],
      [`${bench}/prepare`, /Prepare ·/],
      [`${bench}/way`, /To the next delicate/],
      [`${bench}/hand-over`, /Not finished yet/],
      [`${bench}/record`, /The owner must know|Tests/],
      [bench!, /to go/],
    ] as const) {
      await page.goto(server.url + path);
      await expect(page.getByText(ready).first()).toBeVisible();
      if (path === `${bench}/intake`) await here(page, 'Ines');
      await noViolations(page, `${path} ${colorScheme}`, rules);
    }
    await context.close();
  });
}
