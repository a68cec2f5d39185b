import type { Context } from 'hono';
import type { ContentfulStatusCode } from 'hono/utils/http-status';
import { type Problem, problemText } from '@nibrel/core/model/refusal';

const TITLES: Readonly<Record<number, string>> = {
  400: 'Not JSON',
  401: 'Sign in',
  403: 'Not from here',
  404: 'Not found',
  405: 'Not this way',
  409: 'Conflict',
  413: 'Too large',
  415: 'Another type',
  422: 'Can not be taken',
  429: 'Too often',
  500: 'Internal error',
  503: 'Busy',
};

/** An answer that says what went wrong, as RFC 9457 has it. Thrown anywhere, answered in one place. */
export class HttpProblem extends Error {
  readonly status: number;
  readonly errors: readonly Problem[];
  readonly headers: Readonly<Record<string, string>>;

  constructor(
    status: number,
    detail: string,
    errors: readonly Problem[] = [],
    headers: Readonly<Record<string, string>> = {},
  ) {
    super(detail);
    this.name = 'HttpProblem';
    this.status = status;
    this.errors = errors;
    this.headers = headers;
  }

  /** One field is at fault, and nothing else is to be said. */
  static at(status: number, problem: Problem, headers?: Readonly<Record<string, string>>): HttpProblem {
    return new HttpProblem(status, problemText(problem), [problem], headers);
  }
}

export function answerProblem(context: Context, problem: HttpProblem): Response {
  const { status, errors, message } = problem;
  const body = {
    type: 'about:blank',
    title: TITLES[status] ?? 'Problem',
    status,
    detail: message,
    ...(errors.length > 0 ? { errors: errors.map((each) => ({ ...each, path: each.path || 'body' })) } : {}),
  };
  return context.body(JSON.stringify(body), status as ContentfulStatusCode, {
    'content-type': 'application/problem+json',
    ...problem.headers,
  });
}
