import { chromium } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { Driven } from './drive.ts';
import config from './playwright.config.ts';
import { DemoServer } from './server.ts';
import { openBench } from './steps.ts';

// How long a key at the bench takes until the page changes, and until it shows the next step, acknowledged and on disk. The reference is the
// server alone: a note sent to the same repair. Prints one line of JSON.
const server = await DemoServer.start();
const browser = await chromium.launch(config.use!.launchOptions);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

const at = (sorted: readonly number[], share: number) => sorted[Math.floor((sorted.length - 1) * share)]!;

/** Presses Space, and looks at every frame for what has changed: at all, and to the next step. Null where nothing did. */
const PRESS = `new Promise((resolve) => {
  const shown = () => [...document.querySelectorAll('h1, [data-step], [aria-label="Operation"] p')].map((each) => each.textContent).join('|');
  const before = shown();
  const began = performance.now();
  let first = 0;
  const look = () => {
    const now = shown();
    const took = performance.now() - began;
    if (now !== before) first ||= took;
    if (now !== before && !now.includes('Saving')) resolve([first, took]);
    else if (took > 3000) resolve(null);
    else requestAnimationFrame(look);
  };
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }));
  requestAnimationFrame(look);
})`;

let people = 0;

async function measured(device: string, from: string, targets: Parameters<typeof Driven.begin>[2], presses: number) {
  const job = await Driven.begin(server.url, device, targets, device);
  await job.until(from);
  // who is at the bench is asked for once
  if (people++ === 0) await openBench(page, job);
  else await page.goto(job.address);
  await page.waitForSelector('[data-step]');
  await page.waitForTimeout(2000);
  const keys: (readonly [number, number])[] = [];
  const alone: number[] = [];
  while (keys.length < presses) {
    // while a bond is warmed the clock changes by itself: that is no answer
    const isWarming = (await page.locator('[data-step]').textContent())?.startsWith('Waiting');
    const took = isWarming ? null : ((await page.evaluate(PRESS)) as readonly [number, number] | null);
    if (took) keys.push(took);
    else await page.keyboard.press('w');
    await page.waitForTimeout(took ? 300 : 800);
    const began = performance.now();
    await job.send({ type: 'note', data: { text: randomUUID() } });
    alone.push(performance.now() - began);
    await page.waitForTimeout(300);
  }
  const sorted = (all: readonly number[]) => all.toSorted((a, b) => a - b);
  const seen = sorted(keys.map(([first]) => first));
  const next = sorted(keys.map(([, took]) => took));
  const figures = (all: readonly number[]) => ({ p50_ms: Math.round(at(all, 0.5)), p95_ms: Math.round(at(all, 0.95)) });
  const timesServerAlone = Math.round((at(next, 0.5) / at(sorted(alone), 0.5)) * 10) / 10;
  return { device, seen: figures(seen), nextStep: figures(next), timesServerAlone };
}

const display = await measured('tern-5', 'release:connector-lid-screws', [{ replace: 'display' }], 24);
const strip = await measured('shearwater-11', 'lift:display', [{ full: true }], 50);
console.log(JSON.stringify({ keys: [display, strip] }));
await browser.close();
await server.kill();
