import { type Route, type RouteName, type Routes, ROUTES } from '@nibrel/core/api';
import type { Context } from 'hono';
import type Joi from 'joi';
import { told, jsonBody, valid } from './body.ts';
import { HttpProblem } from './http-problem.ts';

type WithBody = { [Name in RouteName]: Routes[Name] extends { body: unknown } ? Name : never }[RouteName];
type WithQuery = { [Name in RouteName]: Routes[Name] extends { query: unknown } ? Name : never }[RouteName];
type AnswerOf<Name extends RouteName> = Routes[Name]['answer'];

/** The schema of what a route takes. */
export function bodySchema(name: WithBody): Joi.Schema {
  return (ROUTES[name] as Route).body!;
}

/** A body as its route has it. @throws HttpProblem 422 that names every field at fault */
export function taken<Name extends WithBody>(name: Name, body: unknown): Routes[Name]['body'] {
  return valid<Routes[Name]['body']>(bodySchema(name), body);
}

/** The body of a request as its route has it. @throws HttpProblem 400, 413, 415, or 422 that names every field at fault */
export async function bodyOf<Name extends WithBody>(context: Context, name: Name): Promise<Routes[Name]['body']> {
  return taken(name, await jsonBody(context));
}

/** The query as its route has it, unknown fields left out. @throws HttpProblem that names every field at fault */
export function queryOf<Name extends WithQuery>(
  context: Context,
  name: Name,
  status: 404 | 422 = 422,
): Routes[Name]['query'] {
  const { query } = ROUTES[name] as Route;
  const options = { abortEarly: false, stripUnknown: true, errors: { wrap: { label: false } } } as const;
  const { value, error } = query!.validate(context.req.query(), options) as {
    value: Routes[Name]['query'];
    error?: Joi.ValidationError;
  };
  if (!error) return value;
  const errors = told(error);
  throw new HttpProblem(status, errors.map(({ message }) => message).join(' '), errors);
}

/** Answers as the route promises. */
export function answer<Name extends RouteName>(
  context: Context,
  name: Name,
  value: AnswerOf<Name>,
  headers: Readonly<Record<string, string>> = {},
): Response {
  const status = (ROUTES[name] as Route).status ?? 200;
  return context.json(value as object, status as 200 | 201, headers);
}
