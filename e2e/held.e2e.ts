import { expect, test } from '@playwright/test';
import { Driven } from './drive.ts';
import { DemoServer } from './server.ts';
import { confirms, heading, here, inHand, openBench, operation, trouble } from './steps.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
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
  await openBench(page, job);
  const stopped = page.getByRole('region', { name: 'Stopped' });
  await expect(stopped).toContainText('Stopped: heat');
  await expect(stopped).toContainText('and smell: sweet');
  const before = (await job.events()).length;
  for (const key of ['u', 'e', 'g', 'm', 'Space', 'PageDown', 'w', 'l', 'p']) {
    await page.keyboard.press(key);
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
  expect(await job.events()).toHaveLength(before);
  await page.getByRole('button', { name: 'Heat off and away' }).click();
  await expect(stopped).not.toContainText('still on');
  const clear = async (lead: string, reason: string) => {
    await page.getByRole('button', { name: 'The lead decides' }).click();
    await page.getByRole('textbox', { name: 'Lead' }).fill(lead);
    await page.getByRole('textbox', { name: 'Reason' }).fill(reason);
    await page.keyboard.press('Enter');
  };
  const put = () => expect(page.getByRole('dialog')).toHaveCount(0);
  await clear('Ines', 'it is fine');
  await put();
  await expect(page.getByRole('alert')).toContainText('Ines is none');
  await expect(page.getByRole('alert')).toContainText('it is fine');
  await clear('Maren', 'cooled down, the cell is flat');
  // put off, it is not taken, and nothing of what was written is lost
  await page.getByRole('button', { name: 'Not now' }).click();
  await put();
  await expect(page.getByRole('alert')).toContainText('a secret of their own');
  await clear('Maren', 'cooled down, the cell is flat');
  await confirms(page, 'Maren');
  await put();
  await expect(stopped).toContainText('Stopped: smell');
  // it holds for a while
  await clear('Maren', 'it was the adhesive');
  await put();
  await expect(operation(page)).toBeVisible();
});

test('only a screw that came out is lost; one that is found goes back; the end says what is left open', async ({
  page,
}) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Screws');
  await openBench(page, job);
  await expect(heading(page)).toBeVisible();
  const lostPanel = async () => {
    await trouble(page, 'A screw is lost');
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
  await page.getByRole('button', { name: 'It stays so' }).click();
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
  await page.getByRole('link', { name: 'Ways of working' }).click();
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
  await other.send({ type: 'solvent', data: { joint: 'cell-straps', drops: 4, away: true } });
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Next to it');
  await job.until('heat:front-seal');
  await openBench(page, job);
  await expect(heading(page)).toHaveText('Heat it');
  await page.keyboard.press('Space');
  await expect(page.getByRole('alert')).toContainText('4 drops');
  // drops of a minute ago are in the air, whoever says that it is clear: a lead looks
  await page.getByRole('button', { name: 'The bench was aired' }).click();
  await expect(page.getByRole('alert')).toContainText('Air it for');
  await page.getByRole('textbox', { name: 'A lead has looked: why the air is clear' }).fill('the hood was on');
  await page.getByRole('button', { name: 'Maren clears the bench' }).click();
  await confirms(page, 'Maren');
  await expect(page.getByRole('alert')).toHaveCount(0);
  expect(await inHand(page)).toBe('Heat it');
  await page.keyboard.press('Space');
  await expect(heading(page)).toHaveText('Heating');
});

test('what was pressed while the server was away and is refused stays in sight until it is understood', async ({
  page,
}) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Away');
  await openBench(page, job);
  await expect(heading(page)).toBeVisible();
  await page.route('**/events', (route) => (route.request().method() === 'POST' ? route.abort() : route.continue()));
  await page.keyboard.press('Space');
  await expect(page.getByRole('alert')).toContainText('The server does not answer');
  // somebody else does the same at another window meanwhile
  const [next] = await job.ahead();
  await job.send({ type: 'did', data: { steps: [{ id: next!.id, kind: 'procedure', name: next!.name }] } });
  await page.unroute('**/events');
  const returned = page.getByRole('alert').filter({ hasText: 'Not taken, from before' });
  await expect(returned).toContainText('is done already');
  // it outlives the next press, and a reload
  await page.keyboard.press('Space');
  await expect(returned).toBeVisible();
  await page.reload();
  await expect(heading(page)).toBeVisible();
  await expect(returned).toContainText('is done already');
  await returned.getByRole('button', { name: 'Understood' }).click();
  await expect(returned).toHaveCount(0);
  await page.reload();
  await expect(heading(page)).toBeVisible();
  await expect(returned).toHaveCount(0);
});
