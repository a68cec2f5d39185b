import type { Question } from './question.ts';

/**
 * A question as it is said aloud: what is asked, what is done with it in one press, and, where one of its answers says that
 * something is wrong, all that can be answered.
 */
export function aloud({
  title,
  detail,
  list,
  answers,
}: Pick<Question, 'title' | 'detail' | 'list' | 'answers'>): string {
  const more = list.slice(1).map(({ text, more: about }) => (about ? `${text}: ${about.split('. ')[0]}` : text));
  const can = answers.filter(({ notNow, weight }) => notNow === undefined && weight !== 'quiet');
  const isJudged = can.some(({ weight }) => weight === 'warning');
  return [
    title,
    detail,
    ...(list.some(({ gives }) => gives?.kind === 'say') ? more.map((each) => `Then: ${each}`) : []),
    ...(isJudged ? [`${can.map(({ label }) => label).join(', or ')}?`] : []),
  ]
    .filter(Boolean)
    .map((each) => (/[.?]$/.test(each) ? each : `${each}.`))
    .join(' ');
}
