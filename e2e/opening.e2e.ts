import { expect, type Page, test } from '@playwright/test';
import { DemoServer } from './server.ts';
import { here, inHand, operation, picked, prepare, step, taken, trouble } from './steps.ts';
import { noViolations } from './violations.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
});

/** A new repair, taken in and prepared, worked on until an operation is next. */
async function atBench(page: Page, device: string, part: string, title: string | RegExp) {
  await page.goto(server.url);
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText('Planning');
  await page.keyboard.press('n');
  await picked(page, device, part);
  await taken(page, `Pier ${part}`);
  await page.keyboard.press('Enter');
  await page.waitForURL('**/prepare');
  await prepare(page, '20');
  for (let steps = 0; steps < 40; steps++) {
    const said = await inHand(page);
    if (typeof title === 'string' ? said === title : title.test(said)) return;
    await step(page);
  }
  throw new Error(`never came to ${title}`);
}

const seconds = (clock: string) => Number(clock.split(':')[0]) * 60 + Number(clock.split(':')[1]);

test('a Tern 5 is warmed on the stand-in, its prediction closes, and it is cut edge by edge with one reheat', async ({
  page,
}) => {
  test.setTimeout(240_000);
  await atBench(page, 'Tern 5', 'Display', 'Heat it');
  await expect(operation(page)).toContainText(/Soft after 1:\d\d at the latest/);
  // what hot air does instead
  await page.getByRole('radio', { name: 'hot air' }).click();
  await expect(operation(page)).toContainText('Hot air at 80 °C');
  await page.getByRole('radio', { name: 'plate' }).click();
  await page.getByRole('radio', { name: 'stand-in, ×10' }).click();
  await page.keyboard.press('Space');

  const untilSoft = page.getByRole('timer', { name: 'Until it is soft' });
  await expect(untilSoft).toBeVisible();
  const guessed = seconds(/\d+:\d\d/.exec((await untilSoft.textContent())!)![0]);
  expect(guessed).toBeGreaterThan(60);
  // two minutes of the stand-in's clock are twelve seconds here: by then the reach has closed
  await expect(operation(page)).toContainText(/Measured: \d+ to \d+ W/, { timeout: 12_000 });
  await expect
    .poll(
      async () => {
        const said = /Measured: (\d+) to (\d+) W/.exec((await operation(page).textContent())!);
        return said ? Number(said[2]) / Number(said[1]) : Infinity;
      },
      { timeout: 12_000 },
    )
    .toBeLessThan(1.4);
  await expect(operation(page)).toContainText('(simulated)');

  const toCut = page.getByRole('timer', { name: 'Time to cut' });
  await expect(toCut).toBeVisible({ timeout: 20_000 });
  await expect
    .poll(async () => seconds(/\d+:\d\d/.exec((await toCut.textContent())!)![0]), { timeout: 30_000 })
    .toBeGreaterThan(59);
  await page.keyboard.press('Space');

  const heading = operation(page).getByRole('heading', { level: 1 });
  await expect(heading).toHaveText('Cut: bottom');
  await expect(operation(page)).toContainText('3 mm');
  await expect(operation(page)).toContainText('Port module lies behind');
  await expect(page.getByRole('img', { name: /Seam: the pick goes between Display and/ })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(heading).toHaveText('Cut: left');
  await expect(operation(page)).toContainText('2 mm');

  // Space would cut on; heating again has a key of its own
  await expect(page.getByRole('button', { name: /^Heat again/ })).toBeVisible();
  await page.keyboard.press('h');
  await expect(heading).toHaveText('Heating');
  await expect(toCut).toBeVisible({ timeout: 30_000 });
  await page.keyboard.press('Space');
  for (const [edge, depth] of [
    ['left', '2 mm'],
    ['top', '2 mm'],
    ['right', '1.5 mm'],
  ] as const) {
    await expect(heading).toHaveText(`Cut: ${edge}`);
    await expect(operation(page)).toContainText(depth);
    await page.keyboard.press('Space');
  }
  await expect(heading).toHaveText('Slide it out of its hooks');
  await expect(operation(page)).toContainText('4 mm to the left');
  await page.keyboard.press('Space');
  await expect(heading).toHaveText('Open it');
  await expect(operation(page)).toContainText('The right edge stays down');

  // what was learned is kept, and offered the next time with its date
  await page.goto(`${server.url}/heat/tern-5/front-seal`);
  await expect(page.getByText(/Measured here .*2026, \d\.\d °C left over, on a stand-in \(simulated\)/)).toBeVisible();
  await page.getByRole('radio', { name: 'the guess' }).click();
  await expect(page.getByText('A guess: measure it')).toBeVisible();
});

test('a tablet is warmed zone by zone, each when the cut comes to it', async ({ page }) => {
  await page.goto(server.url);
  await page
    .getByRole('link', { name: /Chart table/ })
    .first()
    .click();
  await here(page, 'Tomas');
  const heading = operation(page).getByRole('heading', { level: 1 });
  const toZone = async (zone: string) => {
    for (let steps = 0; steps < 20 && (await inHand(page)) !== `Heat it, ${zone}`; steps++) await step(page);
    await expect(heading).toHaveText(`Heat it, ${zone}`);
    await expect(operation(page)).toContainText('Hot: burns');
    await page.keyboard.press('Space');
    await expect(heading).toHaveText(`Heating, ${zone}`);
    // it came off early, which is said at the cut
    await page.keyboard.press('w');
  };
  await toZone('lower');
  await expect(heading).toHaveText('Cut: bottom');
  await expect(operation(page)).toContainText('Heat off early');
  await expect(operation(page)).toContainText('Glass can break');
  const edges = page.getByRole('list', { name: 'Edges' });
  await expect(edges).toContainText('heat, then upper right');
  await toZone('upper');
  await expect(heading).toHaveText('Cut: upper right');
  await expect(edges).not.toContainText('heat, then');
  // under the pick it drags: where is kept, and what is planned next is to warm it
  await page.keyboard.press('d');
  await expect(heading).toHaveText('Heat it, upper');
  await page.keyboard.press('Space');
  await expect(heading).toHaveText('Heating, upper');
  // it does not soften: another source goes on in its place
  await operation(page).getByRole('button', { name: 'plate', exact: true }).click();
  await expect(operation(page)).toContainText('Warming plate, ');
  await expect(page.locator('[data-step]')).not.toContainText('Saving');
  await page.keyboard.press('w');
  await expect(heading).toHaveText('Cut: upper right');
  const { pathname } = new URL(page.url());
  const { events } = (await (await page.request.get(`${server.url}/api/v1${pathname}/events`)).json()) as {
    events: { type: string; data: Record<string, unknown> }[];
  };
  const told = events.find(({ type }) => type === 'trouble')!;
  expect(told.data).toMatchObject({ kind: 'drags', joint: 'front-bond', segment: 'upper-right' });
  const sources = events.flatMap(({ type, data }) =>
    type === 'heat-on' ? [(data['setting'] as { kind: string }).kind] : [],
  );
  expect(sources.slice(-2)).toEqual(['air', 'plate']);
});

test('a reading that can not be right is refused by name, and nothing is lost', async ({ page }) => {
  await atBench(page, 'Tern 5', 'Display', 'Heat it');
  await noViolations(page);
  await page.keyboard.press('Space');
  await page.getByText('Thermometer', { exact: true }).click();
  await noViolations(page);
  const shows = page.getByRole('textbox', { name: 'Shows, °C' });
  await shows.fill('24,5');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 read, last 24.5 °C')).toBeVisible();
  await shows.fill('400');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('hotter than the source at 70 °C');
  await page.getByRole('button', { name: 'Understood' }).click();
  await expect(page.getByText('1 read, last 24.5 °C')).toBeVisible();
  await page.keyboard.press('Escape');
  // taken off early: recorded, and the cut goes on by feel
  await operation(page).getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('w');
  await expect(operation(page).getByRole('heading', { level: 1 })).toHaveText('Cut: bottom');
  await expect(operation(page)).toContainText('Heat off early');
  await noViolations(page);
  await trouble(page, 'Cut too deep');
  await page.getByRole('combobox', { name: 'At which edge' }).selectOption({ label: 'left, 2 mm' });
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Record it' }).click();
  await expect(page.getByText('cut too deep over Battery').first()).toBeVisible();
});

test('the heat bench foresees, lays recipes over each other, draws the device, and says what will not do', async ({
  page,
}) => {
  // by itself it shows a device that has something to heat
  await page.goto(`${server.url}/heat`);
  await expect(page.getByText(/Soft after/)).toBeVisible();
  await page.goto(`${server.url}/heat/shearwater-11`);
  await expect(page.getByText(/Soft after 1:\d\d at the latest/)).toBeVisible();
  const device = page.getByRole('region', { name: 'The whole device' });
  await expect(device).toContainText('source on', { timeout: 20_000 });
  await expect(device.getByRole('img')).toHaveAttribute('aria-label', /Soft: .*bottom/);
  await device.getByRole('slider', { name: 'Moment' }).focus();
  await page.keyboard.press('Home');
  await expect(device.getByRole('img')).toHaveAttribute('aria-label', /Soft: no edge/);
  await page.getByRole('checkbox', { name: 'Warm pack on one edge, 2 min' }).check();
  await page.getByRole('checkbox', { name: 'Plate 70 °C, 5 min' }).check();
  await page.getByRole('button', { name: 'Set up: Plate 70 °C, 5 min' }).click();
  await expect(page.getByRole('img', { name: /Temperatures over time/ })).toHaveAttribute('aria-label', /Off at 5:00/);
  // hot enough to ruin it: computed, and said so
  await page.getByRole('slider', { name: 'Warming plate' }).focus();
  await page.keyboard.press('End');
  await expect(page.getByRole('note', { name: 'Caution' })).toContainText('A source this hot destroys displays');
  await page.keyboard.press('Home');
  await expect(page.getByText('Never soft at 40 °C')).toBeVisible();
  // a material of one's own changes what is foreseen
  await page.getByRole('button', { name: 'Set up: Plate 70 °C, 5 min' }).click();
  const headline = page.getByText(/Soft after .* at the latest/);
  const before = await headline.textContent();
  await page.getByRole('button', { name: 'Materials' }).click();
  await page.getByRole('button', { name: 'Change acrylic foam tape' }).click();
  await page.getByRole('textbox', { name: 'Conducts, W/m·K' }).fill('0');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('A number over 0')).toBeVisible();
  await page.getByRole('textbox', { name: 'Conducts, W/m·K' }).fill('0,03');
  await page.getByRole('textbox', { name: 'Where from' }).fill('measured here');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('dialog')).toContainText('measured here');
  await page.keyboard.press('Escape');
  await expect(headline).not.toHaveText(before!);
  // the same in the unit of a shop that thinks in it
  await page.getByRole('button', { name: 'Settings' }).click();
  await page.getByRole('radio', { name: '°F' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('checkbox', { name: 'Plate 158 °F, 5 min' })).toBeVisible();
  await page.getByRole('slider', { name: 'Hot air' }).focus();
  await page.keyboard.press('Home');
  await expect(page.getByText('Never soft at 104 °F')).toBeVisible();
});

test('a pick card is printed from the device', async ({ page }) => {
  await page.goto(`${server.url}/devices/shearwater-11`);
  await page.getByRole('combobox', { name: 'Part or joint' }).selectOption('front-bond');
  await page.getByRole('link', { name: 'Pick card' }).click();
  const card = page.getByRole('img', { name: /8 mm at bottom/ });
  await expect(card).toBeVisible();
  await expect
    .poll(() => card.evaluate((image: HTMLImageElement) => image.complete && image.naturalWidth > 0))
    .toBe(true);
  const pdf = page.getByRole('link', { name: 'Page to print, PDF' });
  const answer = await page.request.get(server.url + (await pdf.getAttribute('href')));
  expect(answer.headers()['content-type']).toBe('application/pdf');
  expect((await answer.body()).subarray(0, 5).toString()).toBe('%PDF-');
});

test('solvent is counted in drops, and its bench is aired before any heat', async ({ page }) => {
  await atBench(page, 'Tern 5', 'Battery', 'Pull the straps up');
  // pulled dry first; soaked only once one has snapped
  await trouble(page, 'A pull tab snapped');
  await page.getByRole('button', { name: /^Record it/ }).click();
  await expect.poll(() => inHand(page)).toBe('Let solvent soak in');
  await page.getByRole('radio', { name: '10' }).click();
  await expect(operation(page)).toContainText(/After 10 drops the bench is aired for \d+:\d\d before any heat/);
  // what was warmed on the way cools first
  await expect(page.locator('[data-step]')).toHaveText(/^Heat off and away, solvent on/, {
    timeout: 120_000,
  });
  await page.keyboard.press('Space');
  await expect(page.getByRole('timer', { name: 'Time left' })).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByRole('region', { name: 'What happened' })).toContainText('10 drops, source off and away');
});
