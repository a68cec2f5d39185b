import { expect, test } from '@playwright/test';
import { DemoServer } from './server.ts';
import { here } from './steps.ts';

let server: DemoServer;
test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(async () => {
  await server.kill();
});

test('two cameras and a port are taken in as one repair, and a dead device in one press', async ({ page }) => {
  await page.goto(`${server.url}/new?map=shearwater-11`);
  const part = page.getByRole('combobox', { name: 'Replace' });
  const asked = page.getByRole('list', { name: 'What is asked for' });
  await part.selectOption({ label: 'Front camera' });
  await page.getByRole('button', { name: 'And another' }).click();
  await part.selectOption({ label: 'Rear camera' });
  await page.getByRole('button', { name: 'And another' }).click();
  await part.selectOption('port-module');
  await expect(asked.getByRole('listitem')).toHaveCount(3);
  await expect(page.getByRole('region', { name: 'Plan', exact: true })).toContainText('hands-on');
  await page.getByRole('textbox', { name: 'Job number' }).fill('Three at once');
  await page.keyboard.press('Enter');
  await page.waitForURL('**/intake');
  await here(page, 'Ines');
  await page.keyboard.press('4');
  await expect(page.getByRole('region', { name: 'Functions tried' })).toContainText('Everything was tried');
  const [, id] = /jobs\/([^/]+)/.exec(page.url())!;
  const job = (await (await page.request.get(`${server.url}/api/v1/jobs/${id}`)).json()) as { targets: unknown };
  expect(job.targets).toEqual([{ replace: 'front-camera' }, { replace: 'rear-camera' }, { replace: 'port-module' }]);
  // from the preparation to the desk: the repair and its part come along
  await page.goto(`${server.url}/jobs/${id}/prepare`);
  await page.getByRole('button', { name: /^New parts/ }).click();
  await page.getByRole('region', { name: 'New parts' }).getByRole('link', { name: 'Parts desk' }).nth(1).click();
  const arrival = page.getByRole('dialog', { name: 'A part arrived' });
  await expect(arrival).toContainText('Three at once');
  await expect(arrival.getByRole('combobox').nth(1)).toHaveValue('rear-camera');
  // what is not there is ordered at the desk, or left as it is
  await page.goto(`${server.url}/jobs/${id}/prepare`);
  await page.getByRole('button', { name: /^New parts/ }).click();
  const parts = page.getByRole('region', { name: 'New parts' });
  await parts.getByRole('button', { name: 'Close up without' }).nth(1).click();
  await expect(parts.getByRole('listitem')).toHaveCount(2);
  await expect(parts).not.toContainText('Rear camera');
  await page.goto(`${server.url}/jobs/${id}/record`);
  await expect(page.getByRole('region', { name: 'What happened' })).toContainText('not tried');
});

test('a device is taken in to be taken all apart, or to have one part out and back', async ({ page }) => {
  await page.goto(`${server.url}/new?map=tern-5`);
  await page.getByRole('button', { name: 'All of it apart' }).click();
  await expect(page.getByRole('list', { name: 'What is asked for' })).toContainText('Take it all apart');
  await expect(page.getByRole('region', { name: 'Plan', exact: true })).toContainText('hands-on');
  await page.getByRole('button', { name: /^Not Take it all apart/ }).click();
  await page.getByRole('combobox', { name: 'What is done' }).selectOption('out');
  await page.getByRole('combobox', { name: 'Take out', exact: true }).selectOption('loudspeaker');
  await expect(page.getByText('Pick the part on the drawing')).toHaveCount(0);
  await page.getByRole('textbox', { name: 'Job number' }).fill('Out and back');
  await page.keyboard.press('Enter');
  await page.waitForURL('**/intake');
  const [, id] = /jobs\/([^/]+)/.exec(page.url())!;
  const job = (await (await page.request.get(`${server.url}/api/v1/jobs/${id}`)).json()) as { targets: unknown };
  expect(job.targets).toEqual([{ remove: 'loudspeaker' }]);
});
