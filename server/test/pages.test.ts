import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { basename, dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { format, resolveConfig } from 'prettier';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { planRepair } from '@nibrel/core/planner/plan';
import { opLine } from '@nibrel/core/planner/words';
import { describe, expect, it } from 'vitest';
import { eventTable } from '../src/http/event-table.ts';
import { openApi } from '../src/http/openapi.ts';

const root = fileURLToPath(new URL('../..', import.meta.url));
const PLACES = ['core/src', 'core/test', 'core/bench', 'server/src', 'server/test', 'server/bench', 'web/src', 'e2e'];

function filesIn(place: string, kind: RegExp): string[] {
  return readdirSync(join(root, place), { recursive: true, encoding: 'utf8' })
    .filter((each) => kind.test(each))
    .map((each) => join(root, place, each));
}

/** Pages that a text names and that are not there, each with the file that names it. */
function missing(files: readonly string[], named: RegExp, placesOf: (file: string) => readonly string[]): string[] {
  return files.flatMap((file) =>
    [...readFileSync(file, 'utf8').matchAll(named)]
      .map((found) => found[1]!.split('#')[0]!)
      .filter((page) => page !== '' && !/^[a-z]+:/.test(page))
      .filter((page) => !placesOf(file).some((place) => existsSync(join(place, page))))
      .map((page) => `${relative(root, file)}: ${page}`),
  );
}

describe('pages', () => {
  it('that the code names are in this repository', () => {
    const code = [...PLACES, 'scripts'].flatMap((place) => filesIn(place, /\.(ts|tsx|mjs|css)$/));
    expect(code.length).toBeGreaterThan(300);
    expect(missing(code, /([\w./-]+\.md)\b/g, () => [root, join(root, 'docs')])).toEqual([]);
  });

  it('and what they link to, and the files that they name, are there', () => {
    const pages = [...['README.md', 'CONTRIBUTING.md'].map((name) => join(root, name)), ...filesIn('docs', /\.md$/)];
    expect(missing(pages, /\]\(([^)\s]+)\)/g, (file) => [dirname(file)])).toEqual([]);
    expect(missing(pages, /`((?:core|server|web|demo|e2e|scripts|docs)\/[\w./-]+)`/g, () => [root])).toEqual([]);
  });

  it('and what is made from the code is as the code has it now', async () => {
    const page = readFileSync(join(root, 'docs/events.md'), 'utf8');
    expect(page).toBe(
      await format(eventTable(), { ...(await resolveConfig(join(root, 'docs/events.md'))), parser: 'markdown' }),
    );
    const published = JSON.parse(readFileSync(join(root, 'docs/openapi.json'), 'utf8')) as object;
    expect(published).toEqual(JSON.parse(JSON.stringify(openApi())));
  });

  it('and every wing and room of the core is in the table of how it works', () => {
    const table = readFileSync(join(root, 'docs/how-it-works.md'), 'utf8');
    const wings = readdirSync(join(root, 'core/src'));
    const rooms = wings.flatMap((wing) =>
      readdirSync(join(root, 'core/src', wing)).filter((name) => !name.includes('.')),
    );
    expect(rooms.length).toBeGreaterThan(30);
    expect([...wings, ...rooms].filter((name) => !table.includes(`\`${name}\``))).toEqual([]);
  });

  it('and the glossary has each word once, in its alphabetical place, with names that the core exports', () => {
    const entries = readFileSync(join(root, 'docs/glossary.md'), 'utf8').match(/^- \*\*.*(?:\n {2}.*)*/gm)!;
    const words = entries.map((entry) => /\*\*([^*]+)\*\*/.exec(entry)![1]!);
    expect(words.length).toBeGreaterThan(50);
    expect(words).toEqual([...new Set(words)].toSorted());
    const names = entries.flatMap((entry) =>
      [...(entry.split('_Code_:')[1] ?? '').matchAll(/`(\w+)`/g)].map(([, name]) => name),
    );
    const code = filesIn('core/src', /\.ts$/)
      .map((file) => readFileSync(file, 'utf8'))
      .join('\n');
    const exported = new Set(
      [...code.matchAll(/^export (?:abstract )?(?:const|function|class|interface|type) (\w+)/gm)].map(
        ([, name]) => name,
      ),
    );
    expect(names.filter((name) => !exported.has(name))).toEqual([]);
  });

  it('and no two files of the core have one name', () => {
    const names = filesIn('core/src', /\.ts$/)
      .map((file) => basename(file))
      .filter((name) => name !== 'index.ts');
    expect(names.filter((name, at) => names.indexOf(name) !== at)).toEqual([]);
  });

  it('and the plan in the README comes of the map beside it', () => {
    const page = readFileSync(join(root, 'README.md'), 'utf8');
    const block = (language: string) => new RegExp(`\`\`\`${language}\\n([\\s\\S]*?)\`\`\``).exec(page)![1]!;
    const map = JSON.parse(readFileSync(join(root, 'docs/examples/sample.json'), 'utf8')) as DeviceMap;
    const joints = JSON.parse(block('json')) as DeviceMap['joints'];
    expect(map.joints).toEqual(joints.map((joint) => expect.objectContaining(joint)));
    const budget = { now: () => performance.now(), limitMs: 1000 };
    const { strip } = planRepair({ map, targets: [{ replace: 'cell' }] }, budget);
    expect(block('text').trim().split('\n')).toEqual(strip.map((op) => opLine(map, op)));
  });
});
