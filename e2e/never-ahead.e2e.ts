import { expect, type Page, test } from '@playwright/test';
import { Driven } from './drive.ts';
import { DemoServer } from './server.ts';
import { heading, here, inHand, jump, openBench, operation, trouble } from './steps.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
});

const toGo = (page: Page) => operation(page).getByText(/\d+ to go/);

/** What a worker is asked, plans among it, waits until the test lets it go: what is pressed meanwhile is pressed while
 * nobody knows what comes next. */
async function planningHeld(page: Page) {
  await page.addInitScript(() => {
    let holding = true;
    const waiting: (() => void)[] = [];
    const Plain = window.Worker;
    window.Worker = class extends Plain {
      override postMessage(message: unknown, transfer?: unknown) {
        const send = () => super.postMessage(message, (transfer ?? []) as Transferable[]);
        if (holding) waiting.push(send);
        else send();
      }
    };
    addEventListener('hold-plans', () => (holding = true));
    addEventListener('let-plans-go', () => {
      holding = false;
      for (const send of waiting.splice(0)) send();
    });
  });
  const say = (what: string) => page.evaluate((name) => window.dispatchEvent(new Event(name)), what);
  return { hold: () => say('hold-plans'), letGo: () => say('let-plans-go') };
}

test('two presses in a row while it is planned finish nothing', async ({ page }) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Untouched');
  const before = (await job.events()).length;
  const plans = await planningHeld(page);
  await openBench(page, job);
  await expect(page.getByText('Planning from here')).toBeVisible();
  // both while it is being planned
  await page.keyboard.press('Space');
  await page.keyboard.press('Space');
  await expect(page.getByText('Planning from here')).toBeVisible();
  await plans.letGo();
  await expect(heading(page)).toHaveText('Switch it off');
  expect((await job.line()).status).toBe('under-way');
  expect(await job.events()).toHaveLength(before);
  expect(page.url()).not.toContain('record');
});

test('a reload at the last test does not skip it, and a second window has the same step in hand', async ({
  page,
  context,
}) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Last test');
  await job.until('test:after');
  const [last] = await job.ahead();
  expect(last!.functions!.length).toBeGreaterThan(1);
  await openBench(page, job);
  const button = page.locator('[data-step]');
  await expect(button).toContainText('Works');
  const first = await inHand(page);
  await page.keyboard.press('Space');
  await expect(heading(page)).not.toHaveText(first);
  const shown = await inHand(page);
  await page.reload();
  await expect(heading(page)).toHaveText(shown);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(heading(other)).toHaveText(shown);
  expect((await job.line()).status).toBe('under-way');
});

test('films, order and what is to go are the same after a change of the way, a reload and an undo', async ({
  page,
  context,
}) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Same plan');
  await job.until('fit:display');
  await openBench(page, job);
  // another way is gone: the rest is planned anew
  await trouble(page, 'Something else went wrong');
  await page.getByRole('textbox', { name: 'Note' }).fill('a smear on the frame');
  await page.keyboard.press('Enter');
  // the way from here is planned anew
  await expect.poll(async () => (await job.events()).at(-1)?.type).toBe('trouble');
  await inHand(page);
  const said = async (of: Page) => [await heading(of).textContent(), await toGo(of).textContent()];
  const before = await said(page);
  const plan = (await job.ahead()).map(({ id }) => id);
  expect(plan).toContain('liner-off:front-seal');
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

test('what is written of a trouble while it is planned is there when the plan is', async ({ page }) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Written meanwhile');
  const plans = await planningHeld(page);
  await openBench(page, job);
  await expect(page.getByText('Planning from here')).toBeVisible();
  await trouble(page, 'Something else went wrong');
  const note = page.getByRole('textbox', { name: 'Note' });
  await note.fill('a smear on the frame');
  await plans.letGo();
  await expect(page.getByText('Planning from here')).toHaveCount(0);
  await expect(note).toHaveValue('a smear on the frame');
  await note.press('Enter');
  await expect.poll(async () => (await job.events()).at(-1)?.type).toBe('trouble');
  expect((await job.events()).at(-1)).toMatchObject({ data: { kind: 'other', text: 'a smear on the frame' } });
});

test('what another window said is offered where somebody types, and taken where nobody does', async ({
  page,
  context,
}) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Two forms');
  const words = (of: Page) => of.getByRole('textbox', { name: 'The owner says' });
  await page.goto(`${server.url}/jobs/${job.id}/intake`);
  await here(page, 'Ines');
  const there = await context.newPage();
  await there.goto(page.url());
  await jump(page, /The owner says/);
  await jump(there, /The owner says/);
  await words(there).fill('it fell');
  await there.getByRole('button', { name: 'Note it' }).click();
  await expect(words(page)).toHaveValue('it fell');
  await words(page).fill('it fell into the');
  await jump(there, /The owner says/);
  await words(there).fill('it fell twice');
  await there.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Changed elsewhere: “it fell twice”' })).toBeVisible();
  await expect(words(page)).toHaveValue('it fell into the');
  await page.getByRole('button', { name: 'Take that' }).click();
  await expect(words(page)).toHaveValue('it fell twice');
  await expect(page.getByRole('button', { name: 'Take that' })).toHaveCount(0);
});

test('a part that is added a moment before Space is planned, and nothing finishes without it', async ({ page }) => {
  const job = await Driven.begin(server.url, 'dunlin-open', [{ remove: 'loudspeaker' }], 'One more');
  await job.until();
  const plans = await planningHeld(page);
  await openBench(page, job);
  await plans.letGo();
  await expect(heading(page)).toHaveText('Everything is back and tried');
  await page.keyboard.press('g');
  await page.getByRole('combobox', { name: 'Part' }).selectOption({ label: 'Port module' });
  await plans.hold();
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Add it to this repair' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Space');
  await page.keyboard.press('Space');
  await plans.letGo();
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
  await openBench(page, job);
  await expect(page.getByRole('alert')).toContainText('out of memory');
  await page.keyboard.press('Space');
  expect((await job.line()).status).toBe('under-way');
  await page.getByRole('button', { name: 'Plan again' }).click();
  await expect(heading(page)).toHaveText('Switch it off');
});

test('what happened anyway is taken with its reason, which is not lost where it is refused', async ({ page }) => {
  const job = await Driven.begin(server.url, 'tern-5', [{ replace: 'display' }], 'Anyway');
  await openBench(page, job);
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

test('what waited in a window that was killed is sent by the next one, once', async ({ context }) => {
  const job = await Driven.begin(server.url, 'dunlin-open', [{ replace: 'port-board' }], 'Killed window');
  await job.until('power-off');
  const before = (await job.events()).length;
  const page = await context.newPage();
  await openBench(page, job);
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
