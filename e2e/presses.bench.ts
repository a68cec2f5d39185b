import { chromium, type Page } from '@playwright/test';
import config from './playwright.config.ts';
import { DemoServer } from './server.ts';
import { violations } from './violations.ts';

// How many taps, and how many keys, a display takes from nothing to handed over, and how much of the screen the drawing has
// meanwhile; what not everybody could read or press at any question, in light and dark. The reference are the taps and keys before there was one question in one frame. Prints one line of JSON.
const BEFORE = { taps: 69, keys: 121, tapsBefore: 28, keysBefore: 84 } as const;

const browser = await chromium.launch(config.use!.launchOptions);

interface Way {
  readonly device: string;
  readonly part: string;
  /** as it has to be for this repair, % */
  readonly charge: string;
  /** by touch on an upright tablet, or by keyboard on a laptop */
  readonly by: 'taps' | 'keys';
  /** every function of a row at once */
  readonly isAtOnce: boolean;
}

/** What is typed where a question wants something. */
const TYPED: readonly (readonly [RegExp, string])[] = [
  [/^From, and/, 'Harbour Parts, new'],
  [/^Handed over to/, 'Aldis'],
  [/./, 'it has to go'],
];

interface Seen {
  readonly main: string | null;
  readonly answers: readonly string[];
  readonly field: string | null;
  readonly value: string;
  readonly title: string;
  readonly share: number;
  readonly isNamed: boolean;
}

/** What is asked now, and how much of the screen the drawing has. */
const SEEN = `(() => {
  const bar = document.querySelector('nav[aria-label="Answers"]');
  const named = document.querySelector('main form input');
  const field = document.querySelector('.frame-asked input:not(form input)');
  const where = document.querySelector('.frame-where')?.getBoundingClientRect();
  const main = bar?.querySelector('button[data-step]:not([disabled])');
  return {
    main: main?.textContent ?? null,
    answers: [...(bar?.querySelectorAll('button:not([disabled])') ?? [])].map((each) => each.dataset.answer),
    field: field ? field.closest('div').querySelector('label')?.textContent ?? '' : null,
    value: field?.value ?? '',
    title: document.querySelector('main h1')?.textContent ?? '',
    share: where ? (where.width * where.height) / (innerWidth * innerHeight) : 0,
    isNamed: named !== null,
  };
})()`;

async function measured({ device, part, charge, by, isAtOnce }: Way) {
  // a shelf of its own: each repair uses up a seal
  const server = await DemoServer.start();
  const size = by === 'taps' ? { width: 820, height: 1180 } : { width: 1280, height: 800 };
  const context = await browser.newContext({ viewport: size, hasTouch: by === 'taps', reducedMotion: 'reduce' });
  await context.addInitScript(() =>
    localStorage.setItem('nibrel.bench', JSON.stringify({ state: { person: 'Ines', people: ['Ines'] }, version: 0 })),
  );
  const page = await context.newPage();
  let count = 0;
  let before: number | null = null;
  const shares: number[] = [];
  const barred = new Set<string>();
  let looked = 0;
  const look = async ({ title }: Seen) => {
    if (isAtOnce) return;
    looked++;
    for (const colorScheme of ['dark', 'light'] as const) {
      await page.emulateMedia({ colorScheme });
      for (const each of await violations(page, `${title}, ${colorScheme}:`)) barred.add(each);
    }
  };
  const press = async (id: string, key: string) => {
    count++;
    if (by === 'keys') return page.keyboard.press(key);
    // a wait may be over meanwhile: then nothing was pressed
    const button = page.locator(`nav[aria-label="Answers"] [data-answer="${id}"]`);
    return button.tap({ timeout: 1500 }).catch(() => void count--);
  };
  const typed = async (text: string) => {
    if (by === 'keys') count += text.length + 1;
    await page.keyboard.insertText(text);
    if (by === 'keys') await page.keyboard.press('Enter');
  };
  await page.goto(server.url);
  await page.getByRole('button', { name: 'Take in a repair' }).waitFor();
  if (by === 'keys') await page.keyboard.press('n');
  else await page.getByRole('button', { name: 'Take in a repair' }).tap();
  count++;
  for (const [name, field] of [
    [device, 'Find a device'],
    [part, 'Find a part'],
  ] as const) {
    await page.getByRole('textbox', { name: field }).waitFor();
    if (by === 'keys') await typed(name.slice(0, 1));
    else {
      await page.getByRole('list', { name: 'In this step' }).getByRole('button', { name, exact: true }).tap();
      count++;
    }
  }
  await page.getByRole('textbox', { name: 'Job number' }).waitFor();
  if (by === 'keys') {
    count++;
    await page.keyboard.press('Enter');
  } else await press('take-in', 'Enter');
  await page.waitForURL('**/intake');
  for (let n = 0; n < 200 && !page.url().endsWith('/record'); n++) {
    const seen = await settled(page);
    if (page.url().endsWith('/record')) break;
    shares.push(seen.share);
    await look(seen);
    if (before === null && /\/jobs\/[^/]+$/.test(page.url())) before = count;
    await answered(seen);
    await page.waitForTimeout(120);
  }
  await page.goto(page.url().replace('/record', '/hand-over'));
  count++;
  for (let n = 0; n < 10; n++) {
    const seen = await settled(page);
    if (seen.title === 'Handed over') break;
    shares.push(seen.share);
    await look(seen);
    await answered(seen);
    await page.waitForTimeout(120);
  }
  await context.close();
  await server.kill();
  const sorted = shares.toSorted((a, b) => a - b);
  const percent = (share: number) => Math.round(share * 100);
  return {
    device,
    by,
    isAtOnce,
    presses: count,
    beforeTheFirst: before,
    ...(isAtOnce ? {} : { axe: { questions: looked, violations: [...barred] } }),
    drawing_percent: { least: percent(sorted[0]!), median: percent(sorted[Math.floor(sorted.length / 2)]!) },
  };

  async function answered({ main, answers, field, value }: Seen) {
    if (isAtOnce && answers.includes('rest-works')) return press('rest-works', '5');
    if (field !== null && value === '' && (main !== null || answers.includes('early'))) {
      const isTaken = /^(Charge|From|Handed|It goes)/.test(field);
      if (isTaken) {
        await page.locator('.frame-asked input').first().focus();
        await typed(field.startsWith('Charge') ? charge : TYPED.find(([label]) => label.test(field))![1]);
        if (by === 'keys') return undefined;
        return press(answers.includes('early') ? 'early' : answers[0]!, 'Enter');
      }
    }
    if (main !== null) {
      // out of a field that stands filled in
      if (field !== null) await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
      return press(answers[0]!, ' ');
    }
    if (answers.includes('end-wait')) return press('end-wait', 'w');
    return undefined;
  }
}

/** What is asked once nothing is being saved or planned. */
async function settled(page: Page): Promise<Seen> {
  for (let looks = 0; ; looks++) {
    if (looks === 400)
      throw new Error(`Nothing can be said at ${page.url()}: ${JSON.stringify(await page.evaluate(SEEN))}`);
    const seen = (await page.evaluate(SEEN)) as Seen;
    const isReady =
      seen.title !== '' && (seen.main !== null || seen.answers.some((id) => id === 'end-wait' || id === 'early'));
    if (page.url().endsWith('/record') || (isReady && seen.main !== 'Saving')) return seen;
    await page.waitForTimeout(60);
  }
}

const results = [];
for (const [device, part, charge] of [
  ['Dunlin Open', 'Display module', '60'],
  ['Tern 5', 'Display', '20'],
] as const) {
  for (const by of ['taps', 'keys'] as const) {
    for (const isAtOnce of [false, true]) {
      results.push(await measured({ device, part, charge, by, isAtOnce }));
      console.error(JSON.stringify(results.at(-1)));
    }
  }
}
console.log(JSON.stringify({ presses: { before: BEFORE, results } }));
await browser.close();
