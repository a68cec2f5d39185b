import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/**
 * Everybody can read and press what is in sight. Only violations are listed and no page is opened to sum them up: that
 * is for pages with frames, which there are none of here. @param rules only these; where none is named, all of them
 */
export async function noViolations(page: Page, where = '', rules: readonly string[] = []) {
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'], preload: false });
  const { violations } = await (rules.length > 0 ? axe.withRules([...rules]) : axe).analyze();
  expect(violations.map(({ id, nodes }) => `${where} ${id} ${nodes[0]?.html.slice(0, 160)}`)).toEqual([]);
}
