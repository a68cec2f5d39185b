import { expect, type Page, test } from '@playwright/test';
import { Driven } from './drive.ts';
import { DemoServer } from './server.ts';
import { here, inHand, operation } from './steps.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
});

const heading = (page: Page) => operation(page).getByRole('heading', { level: 1 });
const toGo = (page: Page) => operation(page).getByText(/\d+ to go/);
const open = async (page: Page, job: Driven) => {
  await page.goto(`${server.url}/jobs/${job.id}`);
  await here(page, 'Ines');
};

/** Plans take this long: what is pressed meanwhile is pressed while nobody knows what comes next. */
const slowPlans = (page: Page, ms: number) =>
  page.addInitScript((late) => {
    const Plain = window.Worker;
    window.Worker = class extends Plain {
      override postMessage(message: unknown, transfer?: unknown) {
        setTimeout(() => super.postMessage(message, (transfer ?? []) as Transferable[]), late);
      }
    };
  }, ms);

test('two presses in a row while it is planned finish nothing', async ({ page }) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Untouched');
  const before = (await job.events()).length;
  await slowPlans(page, 1500);
  await open(page, job);
  await expect(page.getByText('Planning from here')).toBeVisible();
  await page.keyboard.press('Space');
  await page.waitForTimeout(200);
  await page.keyboard.press('Space');
  await expect(heading(page)).toHaveText('Switch it off');
  expect((await job.line()).status).toBe('under-way');
  expect(await job.events()).toHaveLength(before);
  expect(page.url()).not.toContain('record');
});

test('a reload at the last test does not skip it, and a second window has the same step in hand', async ({
  page,
  context,
}) => {
  const job = await Driven.begin(server.url, 'dunlin-open', [{ replace: 'port-board' }], 'Last test');
  await job.until('test:after');
  const [last] = await job.ahead();
  expect(last!.functions!.length).toBeGreaterThan(1);
  await open(page, job);
  const button = operation(page).locator('[data-step]');
  await expect(button).toContainText('works');
  const first = (await button.textContent())!;
  await page.keyboard.press('Space');
  await expect(button).not.toHaveText(first);
  // between the two it says that it is saving
  await expect(button).toContainText('works');
  const shown = (await button.textContent())!;
  await page.reload();
  await expect(button).toHaveText(shown);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(operation(other).locator('[data-step]')).toHaveText(shown);
  expect((await job.line()).status).toBe('under-way');
});

test('films, order and what is to go are the same after a change of the way, a reload and an undo', async ({
  page,
  context,
}) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Same plan');
  await job.until('fit:display');
  await open(page, job);
  // another way is gone: the rest is planned anew
  await page.keyboard.press('t');
  await page.getByRole('combobox', { name: 'What happened' }).selectOption({ label: 'Something else' });
  await page.getByRole('textbox', { name: 'Note' }).fill('a smear on the frame');
  await page.keyboard.press('Enter');
  // the way from here is planned anew
  await expect.poll(async () => (await job.events()).at(-1)?.type).toBe('trouble');
  await inHand(page);
  const said = async (of: Page) => [await heading(of).textContent(), await toGo(of).textContent()];
  const before = await said(page);
  const plan = (await job.ahead()).map(({ id }) => id);
  expect(plan).toContain('film-off:display');
  await page.keyboard.press('Space');
  await expect(toGo(page)).not.toHaveText(before[1]!);
  const after = await said(page);
  expect((await job.ahead()).map(({ id }) => id)).toEqual(plan.slice(1));
  await page.keyboard.press('u');
  await expect(toGo(page)).toHaveText(before[1]!);
  expect(await said(page)).toEqual(before);
  expect((await job.ahead()).map(({ id }) => id)).toEqual(plan);
  await page.keyboard.press('Space');
  await expect(toGo(page)).toHaveText(after[1]!);
  await page.reload();
  await expect(toGo(page)).toHaveText(after[1]!);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(toGo(other)).toHaveText(after[1]!);
  expect(await said(other)).toEqual(after);
});

test('a part that is added a moment before Space is planned, and nothing finishes without it', async ({ page }) => {
  const job = await Driven.begin(server.url, 'dunlin-open', [{ remove: 'loudspeaker' }], 'One more');
  await job.until();
  await slowPlans(page, 800);
  await open(page, job);
  await expect(heading(page)).toHaveText('Everything is back and tried');
  await page.keyboard.press('g');
  await page.getByRole('combobox', { name: 'Part' }).selectOption({ label: 'Port module' });
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Add it to this repair' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Space');
  await page.keyboard.press('Space');
  await expect(operation(page)).toContainText('to go');
  expect((await job.line()).status).toBe('under-way');
  expect((await job.ahead()).map(({ id }) => id)).toContain('lift:port-board');
});

test('a plan that can not be had says why, and is made again when it is asked for', async ({ page }) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'No plan');
  // the thread is gone while it plans, once
  await page.addInitScript(() => {
    const Plain = window.Worker;
    let broken = true;
    window.Worker = class extends Plain {
      override postMessage(message: unknown, transfer?: unknown) {
        const isPlan = JSON.stringify(message).includes('"ahead"');
        if (!isPlan || !broken) return super.postMessage(message, (transfer ?? []) as Transferable[]);
        broken = false;
        const { id } = message as { id: string };
        const value = { isError: true, value: { message: 'out of memory', name: 'Error', stack: '' } };
        this.dispatchEvent(new MessageEvent('message', { data: { id, type: 'HANDLER', name: 'throw', value } }));
      }
    };
  });
  await open(page, job);
  await expect(page.getByRole('alert')).toContainText('out of memory');
  await page.keyboard.press('Space');
  expect((await job.line()).status).toBe('under-way');
  await page.getByRole('button', { name: 'Plan again' }).click();
  await expect(heading(page)).toHaveText('Switch it off');
});

test('what happened anyway is taken with its reason, which is not lost where it is refused', async ({ page }) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Anyway');
  await open(page, job);
  await expect(heading(page)).toBeVisible();
  await page.keyboard.press('e');
  await page.getByRole('textbox', { name: 'Find' }).fill('seal');
  await page.getByRole('button', { name: /Released: Display.*seal — not yet/ }).click();
  await page.getByRole('textbox', { name: 'How did it happen anyway' }).fill('it had come loose already');
  await page.getByRole('button', { name: 'It happened anyway' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('alert')).toHaveCount(0);
  expect((await job.events()).at(-1)).toMatchObject({
    type: 'did',
    data: { steps: [{ kind: 'release', joint: 'front-seal' }], anyway: 'it had come loose already' },
  });
  await job.send({ type: 'stop', data: { reason: 'smell', text: '' } });
  await expect(page.getByRole('region', { name: 'Stopped' })).toBeVisible();
});

test('while it is stopped no key goes on, each stop is cleared by a lead, and the source can still come off', async ({
  page,
}) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Held');
  await job.until('heat:front-seal');
  const setting = { kind: 'plate', temp_C: 70, transfer: { low: 200, likely: 350, high: 600 }, origin: 'guess' };
  await job.send({ type: 'heat-on', data: { joint: 'front-seal', setting, heat_s: 300 } });
  const reading = { at_s: 20, temp_C: 66, spot: 'cell' };
  await job.send({ type: 'heat-reading', data: { joint: 'front-seal', readings: [reading] } });
  await job.send({ type: 'stop', data: { reason: 'smell', text: 'sweet' } });
  await open(page, job);
  const stopped = page.getByRole('region', { name: 'Stopped' });
  await expect(stopped).toContainText('Stopped: heat');
  await expect(stopped).toContainText('and smell: sweet');
  const before = (await job.events()).length;
  for (const key of ['u', 'e', 't', 'g', 'm', 'Space', 'PageDown', 'w', 'l', 'p']) {
    await page.keyboard.press(key);
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
  expect(await job.events()).toHaveLength(before);
  await page.getByRole('button', { name: 'The source is off and away' }).click();
  await expect(stopped).not.toContainText('still on');
  const clear = async (lead: string, reason: string) => {
    await page.getByRole('button', { name: 'The lead decides' }).click();
    await page.getByRole('textbox', { name: 'Lead' }).fill(lead);
    await page.getByRole('textbox', { name: 'Reason' }).fill(reason);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  };
  await clear('Ines', 'it is fine');
  await expect(page.getByRole('alert')).toContainText('Ines is none');
  await expect(page.getByRole('alert')).toContainText('it is fine');
  await clear('Maren', 'cooled down, the cell is flat');
  await expect(stopped).toContainText('Stopped: smell');
  await clear('Maren', 'it was the adhesive');
  await expect(operation(page)).toBeVisible();
});

test('only a screw that came out is lost; one that is found goes back; the end says what is left open', async ({
  page,
}) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Screws');
  await open(page, job);
  await expect(heading(page)).toBeVisible();
  const lostPanel = async () => {
    await page.keyboard.press('t');
    await page.getByRole('combobox', { name: 'What happened' }).selectOption({ label: 'A screw is lost' });
  };
  await lostPanel();
  await expect(page.getByRole('dialog')).toContainText('No screw is out of the device');
  await page.keyboard.press('Escape');
  await job.until('release:front-seal');
  await page.reload();
  await expect(heading(page)).toBeVisible();
  await lostPanel();
  await expect(page.getByRole('combobox', { name: 'Screws of' }).getByRole('option')).toHaveText(['Display']);
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Record it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('m');
  await page.getByRole('button', { name: 'Found it' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('region', { name: 'Mat' }).getByRole('definition').first()).toHaveText('2');

  const done = await Driven.begin(server.url, 'dunlin-open', [{ remove: 'loudspeaker' }], 'One over');
  await done.until('test:after');
  await done.send({
    type: 'trouble',
    data: { kind: 'one-screw-more', text: '', joint: 'mid-screws', fastener: 'mid' },
  });
  await done.until();
  await page.goto(`${server.url}/jobs/${done.id}`);
  const left = page.getByRole('region', { name: 'Still open' });
  await expect(left).toContainText('is on the mat');
  await page.keyboard.press('Space');
  expect((await done.line()).status).toBe('under-way');
  await left.getByRole('textbox', { name: 'Why it stays so' }).fill('it belongs to another repair');
  await left.getByRole('button', { name: 'It stays so' }).click();
  await expect(heading(page)).toHaveText('Everything is back and tried');
  await page.goto(server.url);
  const row = page.getByRole('region', { name: 'Repairs under way' }).getByRole('link', { name: /One over/ });
  await expect(row).toContainText('Everything is done: finish it');
  await page.goto(`${server.url}/jobs/${done.id}`);
  await expect(heading(page)).toBeVisible();
  await page.keyboard.press('Space');
  await page.waitForURL('**/record');
});

test('a repair of a device whose last one was stopped says so before anything is touched', async ({ page }) => {
  const serial = { serial: 'BF-T5-9000' };
  const post = async (body: object) => {
    const headers = { 'content-type': 'application/json' };
    const answer = await fetch(`${server.url}/api/v1/jobs`, { method: 'POST', headers, body: JSON.stringify(body) });
    return ((await answer.json()) as { id: string }).id;
  };
  const first = await post({ map: 'tern-5', targets: [], title: 'The first one', ...serial });
  const stop = { id: crypto.randomUUID(), type: 'stop', at: new Date().toISOString(), by: 'Ines' };
  await fetch(`${server.url}/api/v1/jobs/${first}/events`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ events: [{ ...stop, data: { reason: 'puncture', text: 'a pick' } }] }),
  });
  const second = await post({ map: 'tern-5', targets: [{ replace: 'display' }], title: 'Again', ...serial });
  await page.goto(`${server.url}/jobs/${second}/intake`);
  await here(page, 'Ines');
  const caution = page.getByRole('note', { name: 'Caution' });
  await expect(caution).toContainText('was stopped, puncture: a pick');
  await expect(caution).toContainText('Nobody cleared it');
});

test('a new workshop is asked for its lead, who alone changes the list and the limits', async ({ page }) => {
  const shop = await DemoServer.start('shop');
  await page.goto(shop.url);
  await page.getByRole('button', { name: 'Who is here?' }).click();
  await expect(page.getByRole('dialog')).toContainText('Nobody leads this workshop yet');
  await page.getByRole('textbox', { name: 'Name' }).fill('Maren');
  await page.getByRole('button', { name: 'That is me, and I lead this workshop' }).click();
  await expect(page.getByRole('dialog')).toContainText('Asked once');
  await page.getByRole('button', { name: 'Who works here, and as what' }).click();
  await page.getByRole('textbox', { name: 'Somebody new' }).fill('Ines');
  await page.getByRole('button', { name: 'Put on the list' }).click();
  const list = page.getByRole('region', { name: 'Who works here' });
  await expect(list).toContainText('Ines');
  await page.getByRole('button', { name: 'Ines', exact: true }).click();
  await page.getByRole('link', { name: 'Schools' }).click();
  const swollen = page.getByRole('textbox', { name: /Swollen from/ });
  await swollen.fill('25');
  await expect(page.getByText('A number from 2 to 20')).toBeVisible();
  await swollen.fill('5');
  await page.getByRole('button', { name: 'Set it' }).click();
  await expect(page.getByRole('alert')).toContainText('Ines is none');
  await shop.kill();
});

test('solvent of another repair at the same bench is aired before any heat, and in its time', async ({ page }) => {
  const other = await Driven.begin(server.url, 'tern-5', [{ replace: 'cell' }], 'With solvent');
  const longAgo = new Date(Date.now() - 3_600_000).toISOString();
  await other.send({ type: 'solvent', data: { joint: 'cell-straps', drops: 4, away: true }, at: longAgo });
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Next to it');
  await job.until('heat:front-seal');
  await open(page, job);
  await expect(heading(page)).toHaveText('Heat it');
  await page.keyboard.press('Space');
  await expect(page.getByRole('alert')).toContainText('4 drops');
  await page.getByRole('button', { name: 'The bench was aired' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(heading(page)).toHaveText('Heat it');
  await page.keyboard.press('Space');
  await expect(heading(page)).toHaveText('Heating');
});

test('what waited in a window that was killed is sent by the next one, once', async ({ context }) => {
  const job = await Driven.begin(server.url, 'dunlin-open', [{ replace: 'port-board' }], 'Killed window');
  await job.until('power-off');
  const before = (await job.events()).length;
  const page = await context.newPage();
  await open(page, job);
  await expect(heading(page)).toHaveText('Switch it off');
  await server.kill();
  await page.keyboard.press('Space');
  await expect(page.getByRole('alert')).toContainText('1 entry not saved yet, waiting');
  await expect(heading(page)).toHaveText('Switch it off');
  await page.close();
  await server.up();
  const next = await context.newPage();
  await next.goto(server.url);
  await expect.poll(async () => (await job.events()).length).toBe(before + 1);
  await next.goto(`${server.url}/jobs/${job.id}`);
  await expect(heading(next)).not.toHaveText('Switch it off');
  expect((await job.events()).at(-1)).toMatchObject({ type: 'did', data: { steps: [{ id: 'power-off' }] } });
});
