import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { browserInstalled, built, installed, root } from './setup.mjs';

const PORT = 4699;
const SETTINGS = {
  state: { theme: 'system', sound: false, speech: false, person: 'Ines', people: ['Ines', 'Tomas'] },
  version: 0,
};

/** Does something in the demonstration, with a browser: `open` gives a page, `job` the id of a repair by its title. */
export async function inDemo(work) {
  await installed();
  await built();
  const executablePath = await browserInstalled();
  const server = spawn(process.execPath, [join(root, 'server/dist/main.js'), '--demo'], {
    env: { ...process.env, NIBREL_PORT: String(PORT), NIBREL_DATA: mkdtempSync(join(tmpdir(), 'nibrel-shots-')) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((resolve) => server.stdout.on('data', (text) => String(text).includes('ready') && resolve()));
  const url = `http://127.0.0.1:${PORT}`;
  const browser = await chromium.launch({
    executablePath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
  });
  try {
    const { jobs } = await (await fetch(`${url}/api/v1/jobs`)).json();
    const open = async (path, options) => {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options });
      const page = await context.newPage();
      await page.addInitScript((stored) => localStorage.setItem('nibrel.bench', stored), JSON.stringify(SETTINGS));
      await page.goto(url + path);
      return page;
    };
    await work({ url, open, job: (title) => jobs.find((each) => each.title === title).id });
  } finally {
    // also where a picture fails
    await browser.close();
    server.kill();
  }
}
