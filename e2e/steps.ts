import type { Driven } from './drive.ts';
import { expect, type Page } from '@playwright/test';

export const operation = (page: Page) => page.getByRole('region', { name: 'Operation' });

export const heading = (page: Page) => operation(page).getByRole('heading', { level: 1 });

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
  return operation(page).evaluate((region) => {
    const text = (selector: string) => [...region.querySelectorAll(selector)].map((each) => each.textContent).join('|');
    const label = text('[data-step]');
    return label === '' || label.includes('Saving') ? null : { title: text('h1'), lines: text('p'), label };
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

/** Passes the gate by keyboard: the owner agrees, the charge is read, the bench is as it has to be. */
export async function prepare(page: Page, charge: string) {
  const told = section(page, 'The owner must know').getByRole('button', { name: 'Told and agreed' });
  const battery = page.getByRole('region', { name: /battery/i });
  const bench = section(page, 'The bench');
  await expect(page.getByText('Planning from here')).toHaveCount(0);
  await expect(bench).toBeVisible();
  if (await told.isVisible()) {
    await page.keyboard.press('Space');
    await expect(told).toHaveCount(0);
  }
  if (await battery.getByRole('textbox', { name: 'Now, %' }).isVisible()) {
    await battery.getByRole('textbox', { name: 'Now, %' }).fill(charge);
    await page.keyboard.press('Enter');
  }
  const reason = bench.getByRole('textbox');
  const done = bench.getByRole('button', { name: /All of it is so|Go on without/ });
  await expect(done).toBeVisible();
  if (await reason.isVisible()) {
    await reason.fill('Maren: it will do');
    await page.keyboard.press('Enter');
  } else await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Prepared: to the bench' })).toBeVisible();
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('Space');
  await page.waitForURL(/\/jobs\/[^/]+$/);
}

/** Takes in a repair and says who is here. */
export async function takeIn(page: Page, url: string, map: string, part: string, title: string) {
  await page.goto(`${url}/new?map=${map}&part=${part}`);
  await expect(page.getByRole('region', { name: 'Plan', exact: true })).toContainText('hands-on');
  await page.getByRole('textbox', { name: 'Job number' }).fill(title);
  await page.keyboard.press('Enter');
  await page.waitForURL('**/intake');
  await here(page, 'Ines');
}

/** At the bench of a repair that was driven there. */
export async function openBench(page: Page, job: Driven) {
  await page.goto(job.address);
  await here(page, 'Ines');
}
