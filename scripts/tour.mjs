import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { inDemo } from './in-demo.mjs';
import { root } from './setup.mjs';

// npm run tour: a repair at the bench as a moving picture of some twenty seconds, to docs/tour.webp.
const STEPS = 24;
const FRAME_ms = 800;
const WIDTH = 960;

await inDemo(async ({ open, job }) => {
  const page = await open(`/jobs/${job('Winch house 2')}`);
  const step = page.locator('[data-step]');
  const frames = [];
  for (let n = 0; n < STEPS; n++) {
    await step.waitFor();
    await page.waitForTimeout(600);
    frames.push(
      await sharp(await page.screenshot())
        .resize({ width: WIDTH })
        .toBuffer(),
    );
    const isWait = (await step.textContent()).includes('Waiting');
    await page.keyboard.press(isWait ? 'w' : 'Space');
    await page.waitForTimeout(400);
  }
  const film = await sharp(frames, { join: { animated: true } })
    .webp({ quality: 60, effort: 5, delay: frames.map(() => FRAME_ms), loop: 0 })
    .toBuffer();
  writeFileSync(join(root, 'docs/tour.webp'), film);
  console.log(`docs/tour.webp: ${frames.length} pictures, ${Math.round(film.length / 1024)} kB`);
});
