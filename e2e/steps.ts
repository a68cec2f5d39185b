import type { Driven } from './drive.ts';
import { expect, type Page } from '@playwright/test';

export const operation = (page: Page) => page.getByRole('region', { name: 'Operation' });

export const heading = (page: Page, region = 'Operation') =>
  page.getByRole('region', { name: region, exact: true }).getByRole('heading', { level: 1 });

/** Says who is at the bench. */
export async function here(page: Page, name: string) {
  await page.getByRole('textbox', { name: 'Name' }).fill(name);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

/** A lead of the demonstration confirms with the secret that is shown there. */
export async function confirms(page: Page, lead: string) {
  const asked = page.getByRole('dialog', { name: `${lead} confirms` });
  await expect(asked).toContainText('In the demonstration it is: harbour light');
  await asked.getByRole('textbox', { name: `Secret of ${lead}` }).fill('harbour light');
  await page.keyboard.press('Enter');
  await expect(asked).toHaveCount(0);
}

interface InHand {
  readonly title: string;
  readonly lines: string;
  /** what is on its button */
  readonly label: string;
}

/** What is in hand, all of it read at one moment; null while the step before it is being saved or planned. */
async function seen(page: Page): Promise<InHand | null> {
  return page.evaluate(() => {
    const text = (selector: string) =>
      [...document.querySelectorAll(selector)].map((each) => each.textContent).join('|');
    const label = text('[data-step]');
    if (label === '' || label.includes('Saving')) return null;
    return { title: text('main h1'), lines: text('main section p'), label };
  });
}

/** A step is saved and planned within some 50 ms; looked for seldom, it would be waited for longer than it takes. */
const OFTEN = { intervals: [20, 30, 50, 100] };

async function seenOnce(page: Page): Promise<InHand> {
  let found: InHand | null = null;
  await expect.poll(async () => (found = await seen(page)) !== null, OFTEN).toBe(true);
  return found!;
}

/** The title of the step in hand, once the one before it is saved. */
export const inHand = async (page: Page) => (await seenOnce(page)).title;

/** Does the step in hand by keyboard: starts a clock and ends the wait, answers a test, or presses on. */
export async function step(page: Page): Promise<string> {
  const before = await seenOnce(page);
  await page.keyboard.press(before.label.includes('Waiting') ? 'w' : 'Space');
  await expect
    .poll(async () => {
      const now = await seen(page);
      return now !== null && JSON.stringify(now) !== JSON.stringify(before);
    }, OFTEN)
    .toBe(true);
  return `${before.title} ${before.lines}`;
}

/** Goes on to the finished record. */
export async function finish(page: Page) {
  for (let steps = 0; steps < 250; steps++) {
    if (page.url().endsWith('/record')) return;
    const title = await inHand(page);
    if (title === 'Everything is back and tried') {
      await page.keyboard.press('Space');
      await page.waitForURL('**/record');
      return;
    }
    await step(page);
  }
  throw new Error('The repair did not end.');
}

export const section = (page: Page, name: string | RegExp) => page.getByRole('region', { name, exact: true });

/** What is asked now, once what was said before is on disk. */
const asked = async (page: Page) => (await seenOnce(page)).title;

/** Jumps to a question of the stage by its name in the list. */
export async function jump(page: Page, name: RegExp) {
  await page.getByRole('list', { name: 'What is asked here' }).getByRole('button', { name }).click();
}

/** Tells a trouble from what is wrong. */
export async function trouble(page: Page, label: string) {
  await page.keyboard.press('t');
  await page.getByRole('dialog', { name: 'What is wrong?' }).getByRole('button', { name: 'Another trouble' }).click();
  await page.getByRole('combobox', { name: 'What happened' }).selectOption({ label });
}

/** What is typed where the preparation asks for something. */
const typedFor = (label: string, charge: string) =>
  label.startsWith('Charge') ? charge : label.startsWith('From') ? 'Harbour Parts, new' : 'Maren: it will do';

/** Answers the preparation by keyboard, as it asks: parts are here, the owner agrees, the bench is as it has to be. */
export async function prepare(page: Page, charge: string) {
  await expect(page.getByText('Planning from here')).toHaveCount(0);
  for (let questions = 0; questions < 20; questions++) {
    if (/\/jobs\/[^/]+$/.test(page.url())) return;
    const before = await asked(page);
    const field = page.getByRole('main').getByRole('textbox', { name: /^(Charge now|From, and|Start without)/ });
    if (await field.isVisible()) {
      const label = (await page.getByRole('main').locator('label').first().textContent())!;
      await field.fill(typedFor(label, charge));
      await field.press('Enter');
    } else await page.keyboard.press('Space');
    await expect.poll(async () => !page.url().endsWith('/prepare') || (await asked(page)) !== before, OFTEN).toBe(true);
  }
  throw new Error('The preparation did not end.');
}

/** Finds a device, then its part, by what they are called. */
export async function picked(page: Page, device: string, part: string) {
  await page.getByRole('textbox', { name: 'Find a device' }).fill(device);
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Find a part' }).fill(part);
  await page.keyboard.press('Enter');
}

/** Says whose it is and what it is called, takes it in, and says who is here. */
export async function taken(page: Page, title: string) {
  await expect(page.getByRole('region', { name: 'Plan', exact: true })).toContainText('hands-on');
  await page.getByRole('textbox', { name: 'Job number' }).fill(title);
  await page.keyboard.press('Enter');
  await page.waitForURL('**/intake');
  await here(page, 'Ines');
}

/** Takes in a repair of this part. */
export async function takeIn(page: Page, url: string, map: string, part: string, title: string) {
  await page.goto(`${url}/new?map=${map}&part=${part}`);
  await taken(page, title);
}

/** At the bench of a repair that was driven there. */
export async function openBench(page: Page, job: Driven) {
  await page.goto(job.address);
  await here(page, 'Ines');
}
