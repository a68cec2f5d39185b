import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { inDemo } from './in-demo.mjs';
import { root } from './setup.mjs';

// npm run screenshots: one picture of each main view, from demo data, to docs/screenshots, and a sample report.
await inDemo(async ({ url, job, open }) => {
  const views = [
    ['bench', '/', /hands-on/],
    [
      'devices',
      '/devices/tern-5',
      /Tern 5/,
      async (page) => page.getByRole('combobox', { name: 'Part or joint' }).selectOption('connector-lid'),
    ],
    ['new-repair', '/new?map=tern-5&part=connector-lid', /hands-on/],
    ['at-the-bench', `/jobs/${job('Purser 3')}`, /to go/],
    [
      'taking-apart',
      `/jobs/${job('Bridge 7')}`,
      /What came off/,
      async (page) => page.getByRole('button', { name: 'Drawing' }).waitFor(),
    ],
    [
      'screws',
      `/jobs/${job('Deck crane 1')}/screws/mix-ups`,
      /does no harm|not into/,
      async (page) => page.getByRole('button', { name: /^G/ }).click(),
    ],
    [
      'intake',
      `/jobs/${job('Bridge 1')}/intake`,
      /Take in ·/,
      async (page) => {
        await page
          .getByRole('list', { name: 'What is asked here' })
          .getByRole('button', { name: /Damage/ })
          .click();
      },
    ],
    ['prepare', `/jobs/${job('Engine room 6')}/prepare`, /things to tell/],
    [
      'way',
      `/jobs/${job('Engine room 6')}/way`,
      /1 of/,
      async (page) => {
        for (let n = 0; n < 22; n++) await page.keyboard.press('ArrowRight');
      },
    ],
    [
      'parts',
      '/parts',
      /Parts desk/,
      async (page) =>
        page
          .getByRole('link', { name: /Lower board/ })
          .first()
          .click(),
    ],
    ['heat', '/heat/shearwater-11', /source on/, async (page) => page.waitForTimeout(1500)],
    ['pick-card', '/pick-card/shearwater-11/front-bond', /Page to print/],
    [
      'cutting',
      `/jobs/${job('Deck crew 14')}`,
      /to go/,
      async (page) => {
        await stepTo(page, 'Heat it');
        await page.getByRole('radio', { name: 'stand-in, ×10' }).click();
        await page.keyboard.press('Space');
        await page.getByText(/Measured: .* from 1\d readings/).waitFor({ timeout: 30_000 });
        await page.reload();
        await page.getByRole('timer', { name: 'Time to cut' }).waitFor({ timeout: 60_000 });
        await page.waitForTimeout(5000);
        await page.keyboard.press('Space');
        await page.getByText('Cut: bottom').waitFor();
        await page.keyboard.press('Space');
      },
    ],
    [
      'side-by-side',
      `/jobs/${job('Radio room 2')}`,
      /to go/,
      async (page) => page.getByRole('figure', { name: /side by side/ }).waitFor(),
    ],
    [
      'trying',
      `/jobs/${job('Car deck 7')}`,
      /to go/,
      async (page) => {
        await page.getByRole('button', { name: 'Let the device test itself (simulated)' }).click();
        await page.getByText(/before it is closed: /).waitFor({ timeout: 30_000 });
      },
    ],
    ['hand-over', `/jobs/${job('Mess 4')}/hand-over`, /may go from|To whom/, async (page) => page.waitForTimeout(600)],
    ['kit', '/kit', /Tools and bits/],
    ['schools', '/schools', /So:/],
    ['record', `/jobs/${job('Wheelhouse 2')}/record`, /none left/],
  ];

  for (const [name, path, ready, act, options] of views) {
    const page = await open(path, options);
    await page.getByText(ready).first().waitFor();
    await act?.(page);
    await page.waitForTimeout(1200);
    await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
    await page.context().close();
  }
  // and the report of the repair that was finished last, as a sample
  const report = await fetch(`${url}/api/v1/jobs/${job('Mess 4')}/report.pdf`);
  writeFileSync(join(root, 'docs/examples/report.pdf'), Buffer.from(await report.arrayBuffer()));
});

/** Goes on by keyboard until an operation is in hand. */
async function stepTo(page, title) {
  const heading = page.getByRole('region', { name: 'Operation' }).getByRole('heading', { level: 1 });
  for (let n = 0; n < 30 && (await heading.textContent()) !== title; n++) {
    await page.keyboard.press('Space');
    await page.waitForTimeout(400);
  }
}
