import { expect, test } from '@playwright/test';
import { DemoServer } from './server.ts';
import { jump, taken } from './steps.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
});

test('two cameras and a port are taken in as one repair, and a dead device in one press', async ({ page }) => {
  await page.goto(`${server.url}/new?map=shearwater-11`);
  const find = page.getByRole('textbox', { name: 'Find a part' });
  const asked = page.getByRole('list', { name: 'In this step' });
  for (const [at, part] of ['front camera', 'rear camera', 'port module'].entries()) {
    if (at > 0) await page.getByRole('button', { name: 'One more part' }).click();
    await find.fill(part);
    await page.keyboard.press('Enter');
  }
  await expect(asked.getByRole('listitem')).toHaveCount(3);
  await taken(page, 'Three at once');
  await page.keyboard.press('Space');
  await page.keyboard.press('4');
  await jump(page, /Functions tried/);
  await expect(page.getByRole('region', { name: 'Functions tried' })).toContainText('Everything was tried');
  const [, id] = /jobs\/([^/]+)/.exec(page.url())!;
  const job = (await (await page.request.get(`${server.url}/api/v1/jobs/${id}`)).json()) as { targets: unknown };
  expect(job.targets).toEqual([{ replace: 'front-camera' }, { replace: 'rear-camera' }, { replace: 'port-module' }]);
  // each new part is asked for: one is not here yet, and is gone on without, or closed up without
  await page.goto(`${server.url}/jobs/${id}/prepare`);
  await jump(page, /New Rear camera/);
  await page.getByRole('button', { name: 'Not here yet' }).click();
  await jump(page, /The new Rear camera is not here yet/);
  await page.getByRole('button', { name: 'Close up without it' }).click();
  await expect(page.getByRole('list', { name: 'What is asked here' })).not.toContainText('Rear camera');
  await page.goto(`${server.url}/jobs/${id}/record`);
  await expect(page.getByRole('region', { name: 'What happened' })).toContainText('not tried');
});

test('a device is taken in to be taken all apart, or to have one part out and back', async ({ page }) => {
  await page.goto(`${server.url}/new?map=tern-5`);
  const asked = page.getByRole('list', { name: 'In this step' });
  await page.getByRole('button', { name: 'All of it apart' }).click();
  await page.getByRole('button', { name: 'Nothing else is kept' }).click();
  await expect(asked).toContainText('Take it all apart');
  await expect(page.getByRole('region', { name: 'Plan', exact: true })).toContainText('hands-on');
  await asked.getByRole('button', { name: /^Take it all apart/ }).click();
  await page.getByRole('button', { name: 'Take out, put back' }).click();
  await page.getByRole('textbox', { name: 'Find a part' }).fill('loud');
  await page.keyboard.press('Enter');
  await taken(page, 'Out and back');
  const [, id] = /jobs\/([^/]+)/.exec(page.url())!;
  const job = (await (await page.request.get(`${server.url}/api/v1/jobs/${id}`)).json()) as { targets: unknown };
  expect(job.targets).toEqual([{ remove: 'loudspeaker' }]);
});
