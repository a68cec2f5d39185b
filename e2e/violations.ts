import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/**
 * Everybody can read and press what is in sight. Only violations are listed and no page is opened to sum them up: that
 * is for pages with frames, which there are none of here. @param rules only these; where none is named, all of them
 */
export async function noViolations(page: Page, where = '', rules: readonly string[] = []) {
  expect(await violations(page, where, rules)).toEqual([]);
}

/** What of a page not everybody can read or press. */
export async function violations(page: Page, where = '', rules: readonly string[] = []): Promise<string[]> {
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'], preload: false });
  const found = await (rules.length > 0 ? axe.withRules([...rules]) : axe).analyze();
  return found.violations.map(({ id, nodes }) => `${where} ${id} ${nodes[0]?.html.slice(0, 160)}`);
}
