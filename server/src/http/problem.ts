import type { Context } from 'hono';
import type { ContentfulStatusCode } from 'hono/utils/http-status';
import type { FieldError } from '../sizes/lengths.ts';

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
export class Problem extends Error {
  readonly status: number;
  readonly errors: readonly FieldError[];
  readonly headers: Readonly<Record<string, string>>;

  constructor(
    status: number,
    detail: string,
    errors: readonly FieldError[] = [],
    headers: Readonly<Record<string, string>> = {},
  ) {
    super(detail);
    this.name = 'Problem';
    this.status = status;
    this.errors = errors;
    this.headers = headers;
  }
}

export function answerProblem(context: Context, problem: Problem): Response {
  const { status, errors, message } = problem;
  const body = {
    type: 'about:blank',
    title: TITLES[status] ?? 'Problem',
    status,
    detail: message,
    ...(errors.length > 0 ? { errors } : {}),
  };
  return context.body(JSON.stringify(body), status as ContentfulStatusCode, {
    'content-type': 'application/problem+json',
    ...problem.headers,
  });
}
