import { chromium, type Page } from '@playwright/test';
import config from './playwright.config.ts';
import { DemoServer } from './server.ts';
import { jump } from './steps.ts';

// Photographs in the built application. The reference is the browser itself: decoding the same picture, and scrolling a
// row of as few photographs as fit. Prints one line of JSON.
const server = await DemoServer.start();
const browser = await chromium.launch(config.use!.launchOptions);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(server.url);
const { jobs } = (await (await fetch(`${server.url}/api/v1/jobs`)).json()) as { jobs: { id: string; title: string }[] };
const jobOf = (title: string) => jobs.find((each) => each.title === title)!.id;

const median = (values: number[]) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)]!;

/** A picture of 12 megapixels as a camera has them: every pixel differs a little. */
async function picture(): Promise<Buffer> {
  const base64 = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(4000, 3000);
    const context = canvas.getContext('2d')!;
    const tile = context.createImageData(1000, 1000);
    let seed = 7;
    for (let n = 0; n < tile.data.length; n++) {
      seed = (seed * 1103515245 + 12345) & 0x7fffffff;
      tile.data[n] = n % 4 === 3 ? 255 : 90 + ((n >> 9) % 80) + (seed >> 26);
    }
    for (let x = 0; x < 4000; x += 1000) for (let y = 0; y < 3000; y += 1000) context.putImageData(tile, x, y);
    const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.85 });
    const reader = new FileReader();
    return new Promise<string>((resolve) => {
      reader.addEventListener('load', () => resolve((reader.result as string).split(',')[1]!));
      reader.readAsDataURL(blob);
    });
  });
  return Buffer.from(base64, 'base64');
}

/** From the file being picked to its picture being on the screen, acknowledged and stored. */
async function storedAndShown(buffer: Buffer): Promise<number[]> {
  await page.goto(`${server.url}/jobs/${jobOf('Bridge 1')}/intake`);
  await page.getByRole('textbox', { name: 'Name' }).fill('Ines');
  await page.keyboard.press('Enter');
  await jump(page, /The owner says/);
  const times: number[] = [];
  for (let run = 1; run <= 5; run++) {
    const input = page.getByLabel('Photographs from files');
    await input.evaluate((picker) => {
      picker.addEventListener('change', () => performance.mark('picked'), { capture: true, once: true });
    });
    // watched from inside the page, so that what the driver takes is not counted
    const shown = page.evaluate(async (count) => {
      for (;;) {
        const images = [...document.querySelectorAll<HTMLImageElement>('ul[aria-label="Photographs"] img')];
        if (images.length === count && images.every((each) => each.complete && each.naturalWidth > 0)) {
          return performance.now() - performance.getEntriesByName('picked').at(-1)!.startTime;
        }
        await new Promise((resolve) => setTimeout(resolve, 5));
      }
    }, run);
    await input.setInputFiles({ name: `${run}.jpg`, mimeType: 'image/jpeg', buffer });
    times.push(await shown);
  }
  return times;
}

/** The browser's own decoding of the same bytes. */
function decoded(buffer: Buffer): Promise<number[]> {
  return page.evaluate(async (base64) => {
    const bytes = Uint8Array.from(atob(base64), (each) => each.charCodeAt(0));
    const times: number[] = [];
    for (let run = 0; run < 5; run++) {
      const start = performance.now();
      (await createImageBitmap(new Blob([bytes], { type: 'image/jpeg' }))).close();
      times.push(performance.now() - start);
    }
    return times;
  }, buffer.toString('base64'));
}

async function withPhotos(job: string, count: number): Promise<void> {
  await page.evaluate(
    async ([id, many]) => {
      const events: object[] = [];
      for (let n = 0; n < Number(many); n++) {
        const canvas = new OffscreenCanvas(320, 240);
        const context = canvas.getContext('2d')!;
        context.fillStyle = `hsl(${n % 360} 60% 50%)`;
        context.fillRect(0, 0, 320, 240);
        context.fillStyle = 'black';
        context.fillText(String(n), 20, 40);
        const body = await canvas.convertToBlob({ type: 'image/jpeg' });
        const headers = { 'content-type': 'image/jpeg' };
        const stored = await fetch(`/api/v1/jobs/${id}/photos`, { method: 'POST', body, headers });
        const { hash } = (await stored.json()) as { hash: string };
        const data = { shown: hash, thumb: hash, width: 320, height: 240 };
        events.push({ id: crypto.randomUUID(), type: 'photo', at: new Date().toISOString(), by: 'Ines', data });
      }
      const headers = { 'content-type': 'application/json' };
      await fetch(`/api/v1/jobs/${id}/events`, { method: 'POST', body: JSON.stringify({ events }), headers });
    },
    [job, count] as const,
  );
}

/** Milliseconds of each frame while the row of photographs is scrolled from end to end. */
function framesOf(on: Page): Promise<number[]> {
  return on.evaluate(async () => {
    const list = document.querySelector('ul[aria-label="Photographs"]')!;
    const frames: number[] = [];
    let last = performance.now();
    for (let step = 0; step < 180; step++) {
      await new Promise(requestAnimationFrame);
      const at = performance.now();
      frames.push(at - last);
      last = at;
      list.scrollTop = (list.scrollHeight * (step % 90)) / 90;
    }
    return frames.slice(5);
  });
}

async function scrolled(title: string, count: number): Promise<number[]> {
  await withPhotos(jobOf(title), count);
  await page.goto(`${server.url}/jobs/${jobOf(title)}/intake`);
  await jump(page, /The owner says/);
  await page.locator('ul[aria-label="Photographs"] img').first().waitFor();
  return framesOf(page);
}

const large = await picture();
const shown_ms = await storedAndShown(large);
const decoded_ms = await decoded(large);
const few = await scrolled('Deck crew 14', 12);
const many = await scrolled('Purser 3', 500);
const p99 = (frames: number[]) => frames.toSorted((a, b) => a - b)[Math.floor(frames.length * 0.99)]!;
await browser.close();
await server.kill();

const round = (value: number) => Number(value.toPrecision(3));
console.log(
  JSON.stringify({
    twelveMegapixels: {
      bytes: large.byteLength,
      wanted_ms: 2000,
      storedAndShown_ms: round(median(shown_ms)),
      worst_ms: round(Math.max(...shown_ms)),
      decodedByTheBrowser_ms: round(median(decoded_ms)),
      ratio: round(median(shown_ms) / median(decoded_ms)),
    },
    fiveHundred: {
      frame_median_ms: round(median(many)),
      frame_p99_ms: round(p99(many)),
      ofTwelve_p99_ms: round(p99(few)),
      ratio: round(p99(many) / p99(few)),
    },
  }),
);
