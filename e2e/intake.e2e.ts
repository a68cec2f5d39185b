import { expect, test } from '@playwright/test';
import { DemoServer } from './server.ts';
import { confirms, jump, operation, prepare, section, step, takeIn } from './steps.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
});

test('a cracked, half-charged Tern 5: stopped when swollen, cleared, missing bit, lacking bezel, barred board, tape and run-down', async ({
  page,
}) => {
  await takeIn(page, server.url, 'tern-5', 'display', 'Galley 9');

  // dry; every function by keyboard, the second fails
  await page.keyboard.press('Space');
  const tried = page.getByRole('region', { name: 'Functions tried' });
  await expect(tried.getByRole('heading')).toHaveText('Picture');
  await page.keyboard.press('Space');
  await expect(tried.getByRole('button', { name: /Picture/ })).toContainText('works');
  await page.keyboard.press('2');
  await expect(tried.getByRole('button', { name: /Touch/ })).toContainText('fails');
  await expect(tried.getByRole('heading')).toHaveText('Starts');

  // the owner's words, and a thickness that is no stop
  await jump(page, /The owner says/);
  await page.getByRole('textbox', { name: 'The owner says' }).fill('Fell down the companionway');
  await page.getByRole('button', { name: 'Note it' }).click();
  await jump(page, /Battery charge/);
  await page.getByRole('textbox', { name: 'Now, mm' }).fill('8,4');
  await page.keyboard.press('Enter');
  await expect(page.getByText('2.4 % over the map')).toBeVisible();

  // cracked by pointer on the drawing, and swollen by name: that stops it
  await jump(page, /Damage/);
  const damage = page.getByRole('region', { name: 'Damage', exact: true });
  const drawing = page.getByRole('group', { name: 'Tern 5, front' });
  await drawing.click();
  await expect(damage.getByRole('list', { name: 'Marks' })).toContainText('Crack, Display');
  await damage.getByRole('radio', { name: 'swelling' }).click();
  await damage.getByRole('button', { name: 'Mark it' }).click();
  const stopped = page.getByRole('region', { name: 'Stopped' });
  await expect(stopped).toContainText('Stopped: swelling');
  await expect(stopped).toContainText('The lead decides');
  await page.getByRole('link', { name: 'Prepare', exact: true }).click();
  await expect(stopped).toBeVisible();
  await expect(page.getByRole('region', { name: 'The bench' })).toHaveCount(0);
  // what to do is the loudest, the damage is on the drawing, nobody leaves it and no time counts
  await page.waitForURL('**/prepare');
  const asked = page.url();
  await page.getByRole('link', { name: 'At the bench' }).click();
  await expect(stopped.getByRole('heading')).toHaveText('Hands off the cell');
  await expect(page.getByRole('group', { name: 'Tern 5, front up' })).toContainText('swelling');
  await expect(page.getByRole('banner')).toContainText('no time counts');
  await expect(page.getByText('Safe to leave now')).toHaveCount(0);
  await page.keyboard.press('z');
  await expect(page.getByRole('dialog')).toContainText('until the lead has decided');
  await page.goto(asked);
  await page.getByRole('button', { name: 'The lead decides' }).click();
  await page.getByRole('textbox', { name: 'Lead' }).fill('Maren');
  await page.getByRole('textbox', { name: 'Reason' }).fill('The frame is bent, the cell is flat');
  await page.keyboard.press('Enter');
  await confirms(page, 'Maren');
  await expect(stopped).toHaveCount(0);

  // half charged: the owner first, then the run-down wait
  await jump(page, /The owner must know/);
  await expect(section(page, 'The owner must know')).toContainText('Did not work when it came in: Touch');
  await expect(page.getByText('Planning from here')).toHaveCount(0);
  await page.getByRole('button', { name: 'Agrees here' }).click();
  await expect(page.getByRole('list', { name: 'What is asked here' })).toContainText('the owner agreed');
  await jump(page, /Battery charge/);
  const battery = section(page, 'Battery charge');
  await battery.getByRole('textbox', { name: 'Charge now, %' }).fill('sixty');
  await page.keyboard.press('Enter');
  await expect(battery).toContainText('A percentage, 0 to 100');
  await battery.getByRole('textbox', { name: 'Charge now, %' }).fill('60,0');
  await page.keyboard.press('Enter');
  await jump(page, /Battery charge/);
  await expect(battery).toContainText('60 %: below 25 % wanted');
  await expect(page.getByRole('button', { name: /Running down: start the clock/ })).toBeVisible();
  await battery.getByRole('button', { name: /power meter/ }).click();
  await expect(battery.getByLabel('Power meter')).toContainText('simulated');
  await expect(page.getByRole('list', { name: 'What is asked here' })).toContainText('right for this repair', {
    timeout: 90_000,
  });

  // the part that lacks a bezel
  await page.goto(`${server.url}/parts`);
  await expect(page.getByRole('heading', { name: 'Parts desk' })).toBeVisible();
  await page.keyboard.press('a');
  await page.getByRole('combobox', { name: 'For the repair' }).selectOption({ label: 'Galley 9' });
  await expect(page.getByRole('combobox', { name: 'In place of' })).toContainText('Display, wanted');
  await page.getByRole('textbox', { name: 'From, and as what' }).fill('Harbour Parts, new');
  await page.getByRole('textbox', { name: 'May go back for, days' }).fill('-3');
  await expect(page.getByText('Days, 0 or more')).toBeVisible();
  await page.getByRole('textbox', { name: 'May go back for, days' }).fill('30');
  await page.getByRole('button', { name: 'It is here' }).click();
  const display = page.getByRole('article', { name: 'Display' });
  await expect(display).toContainText('Nobody has looked at it yet');
  await display.getByRole('button', { name: /Earpiece mesh/ }).click();
  await expect(display.getByRole('button', { name: /bezel/ })).toContainText('moves over');
  await display.getByRole('button', { name: 'Looked at' }).click();
  await expect(display.getByRole('heading', { level: 1 })).toHaveText('Use');
  await display.getByRole('button', { name: 'Accept it' }).click();
  await expect(display.getByRole('heading', { level: 1 })).toHaveText('Accepted');

  // the missing bit, where it was taken off the shelf
  await page.goto(`${server.url}/kit`);
  await page.getByRole('button', { name: 'five-lobe 0.8 is gone' }).click();
  await expect(page.getByRole('button', { name: 'five-lobe 0.8 is gone' })).toHaveCount(0);
  await page.goto(server.url);
  await page
    .getByRole('link', { name: /Galley 9/ })
    .first()
    .click();
  // where the part comes from is told as well
  await expect(operation(page)).toContainText('Tell the owner');
  await page.keyboard.press('Space');
  await page.waitForURL('**/prepare');
  await expect(section(page, 'The owner must know')).toContainText('Harbour Parts, new');
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('P2 is not here');
  await expect(page.getByRole('main')).toContainText('slot 1.2 could stand in');
  await expect(page.getByRole('main')).toContainText('strips the screw');
  await prepare(page, '20');

  // and the plan has its tape step
  await expect(operation(page)).toContainText('Switch it off');
  let seen = '';
  for (let steps = 0; steps < 8 && !seen.includes('Tape the cracks'); steps++) seen += await step(page);
  expect(seen).toContain('Tape the cracks');
});

test('a wet device: battery off at once, washed, dried, tried, then its board is decided on', async ({ page }) => {
  await takeIn(page, server.url, 'knot-keys', 'keypad', 'Davits 2');
  await page.keyboard.press('w');
  await page.getByRole('textbox', { name: 'What, and when' }).fill('an hour in the bilge');
  await page.getByRole('button', { name: 'Battery off first' }).click();
  await page.getByRole('button', { name: 'Battery off first: prepare it' }).click();
  await page.waitForURL('**/prepare');
  await prepare(page, '50');
  let seen = '';
  for (let steps = 0; steps < 20 && !(await page.getByText('Washed, dried and tried').isVisible()); steps++) {
    seen += await step(page);
  }
  expect(seen.indexOf('Lift it off')).toBeLessThan(seen.indexOf('Wash out the liquid'));
  await page.keyboard.press('Space');
  await page.getByRole('radio', { name: 'it is replaced' }).click();
  await page.getByRole('textbox', { name: 'What was found' }).fill('green under the board shield');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('banner')).toContainText('replace Main board');
});

test('a cell transplant is allowed by the lead, checked, and disclosed', async ({ page }) => {
  await takeIn(page, server.url, 'dunlin-open', 'cell', 'Forepeak 1');
  await page.keyboard.press('Enter');
  await page.waitForURL('**/prepare');
  await expect(page.getByRole('list', { name: 'What is asked here' })).toContainText('The bench');
  await page.keyboard.press('s');
  await page.getByRole('radio', { name: 'cell transplant' }).click();
  const gate = page.getByRole('dialog', { name: 'A cell transplant is for the lead to allow' });
  await expect(gate.getByRole('button', { name: 'The lead allows it' })).toBeDisabled();
  for (const said of ['Trained for it', 'Local rules', 'Eyes and face', 'Sand in reach']) {
    await gate.getByRole('button', { name: said }).click();
  }
  await gate.getByRole('textbox', { name: 'Lead' }).fill('Maren');
  await gate.getByRole('textbox', { name: /Charge of the old cell/ }).fill('20');
  await gate.getByRole('button', { name: 'The lead allows it' }).click();
  await confirms(page, 'Maren');
  await expect(page.getByRole('radio', { name: 'cell transplant' })).toBeChecked();
  await page.keyboard.press('Escape');
  await jump(page, /The owner must know/);
  await expect(section(page, 'The owner must know')).toContainText('The cell inside the battery is replaced');
  await prepare(page, '20');
  for (let steps = 0; steps < 20; steps++) {
    if (await operation(page).getByText('Replace the cell inside').isVisible()) break;
    await step(page);
  }
  await page.keyboard.press('Space');
  const checks = page.getByRole('dialog', { name: 'The new cell, checked' });
  await checks.getByRole('textbox', { name: /before/ }).fill('3.80');
  await checks.getByRole('textbox', { name: /new cell/ }).fill('3.9');
  for (const said of ['Polarity', 'Every joint', 'Insulation'])
    await checks.getByRole('button', { name: said }).click();
  await checks.getByRole('button', { name: 'All of it checked' }).click();
  await expect(page.getByRole('alert')).toContainText('differ by 0.100 V');
  await page.getByRole('button', { name: 'Understood' }).click();
  await page.keyboard.press('Space');
  await checks.getByRole('textbox', { name: /new cell/ }).fill('3.81');
  await checks.getByRole('textbox', { name: /before/ }).fill('3.80');
  for (const said of ['Polarity', 'Every joint', 'Insulation']) {
    const check = checks.getByRole('button', { name: said });
    if ((await check.getAttribute('aria-pressed')) === 'false') await check.click();
  }
  await checks.getByRole('button', { name: 'All of it checked' }).click();
  await expect(operation(page)).not.toContainText('Replace the cell inside');
  await page.goto(page.url() + '/record');
  await expect(page.getByRole('region', { name: /Disclosed/ })).toContainText('3.81 V');
});

test('the whole way once, what else while it is open, and another school, by keyboard', async ({ page }) => {
  await takeIn(page, server.url, 'petrel-glass', 'back-glass', 'Chart room 1');
  await page.getByRole('link', { name: 'The whole way' }).click();
  const film = page.getByRole('region', { name: 'Step' });
  await expect(film).toContainText('1 of');
  await expect(film.getByRole('heading', { level: 2 })).toHaveText('Switch it off');
  await page.keyboard.press('ArrowRight');
  await expect(film).toContainText('2 of');
  await page.keyboard.press('w');
  await expect(film).toContainText('delicate');
  await page.getByRole('radio', { name: 'quick' }).click();
  const before = await film.locator('p').first().textContent();
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('Space');
  await expect(film.locator('p').first()).not.toHaveText(before!);
  await page.keyboard.press('Enter');
  await page.waitForURL('**/prepare');
  await expect(page.getByRole('list', { name: 'What is asked here' })).toContainText('The bench');
  await page.keyboard.press('o');
  const offers = page.getByRole('dialog');
  await expect(offers.getByRole('row', { name: /Coil plate/ })).toContainText('1 seal', { timeout: 30_000 });
  await offers
    .getByRole('row', { name: /Coil plate/ })
    .getByRole('button', { name: 'Add it' })
    .click();
  await expect(page.getByText('Replace Glass back, replace Coil plate').first()).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('s');
  await page.getByRole('dialog').getByRole('radio', { name: 'arrive charged' }).click();
  await expect(page.getByRole('dialog')).toContainText('Wh in the cell while the pick passes it');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('list', { name: 'What is asked here' })).toContainText('at least');
});
