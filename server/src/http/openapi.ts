import { NAMED, problemAnswer, type Route, type RouteName, ROUTES, storedEvent } from '@nibrel/core/api';
import { deviceMapSchema } from '@nibrel/core/model/device-map';
import { EVENT_DATA, eventEnvelope, rowOf } from '@nibrel/core/job/events';
import { SHOP_EVENT_DATA } from '@nibrel/core/workshop/shop';
import type Joi from 'joi';

/** A Joi schema as JSON Schema. Unknown fields are allowed wherever they only warn. */
export function jsonSchema(schema: Joi.Schema, open = false): object {
  const standard = (schema as unknown as { '~standard': { jsonSchema: { input(o: object): object } } })['~standard'];
  const made = standard.jsonSchema.input({ target: 'draft-2020-12' });
  const mended = (key: string, value: unknown) =>
    open && key === 'additionalProperties' && value === false ? undefined : withReference(withNull(value));
  return JSON.parse(JSON.stringify(made, mended)) as object;
}

/** What stands for a named schema becomes a reference to it. */
function withReference(value: unknown): unknown {
  const { description } = (value ?? {}) as { description?: unknown };
  return typeof description === 'string' && description.startsWith(NAMED) ? { $ref: description } : value;
}

/** Where null is among the values allowed, Joi says so of the type and forgets it in the list. */
function withNull(value: unknown): unknown {
  const { type, enum: values } = (value ?? {}) as { type?: unknown; enum?: unknown };
  if (!Array.isArray(type) || !type.includes('null') || !Array.isArray(values)) return value;
  return { ...(value as object), enum: [...values.filter((each) => each !== null), null] };
}

/** Every event: its envelope, what its type says of its data, and what it tells. */
export function eventSchema(types: Readonly<Record<string, Joi.Schema>>): object {
  const envelope = jsonSchema(eventEnvelope) as { properties: object; required: string[] };
  return {
    oneOf: Object.entries(types).map(([type, data]) => ({
      title: type,
      ...(types === EVENT_DATA ? { description: rowOf(type)?.tells } : {}),
      type: 'object',
      required: envelope.required,
      properties: { ...envelope.properties, type: { const: type }, data: jsonSchema(data) },
    })),
  };
}

const JSON_TYPE = ['application/json'];

/** What any route may answer beside its own, and any that takes a body. */
const ALWAYS = { 403: 'foreign Host or Origin' };
const WITH_BODY = {
  400: 'not JSON',
  413: 'over the size limit',
  415: 'another content type than is taken',
  422: 'refused by validation',
};

/** The API described, OpenAPI 3.1: made from the schemas that requests are checked by. */
export function openApi(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [name, route] of Object.entries<Route>(ROUTES)) {
    const [method, path] = name.split(' ') as [string, string];
    paths[path] = { ...paths[path], ...parameters(path), [method.toLowerCase()]: described(name as RouteName, route) };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Nibrel', version: '1', description: 'What holds what, plans, jobs and their events.' },
    servers: [{ url: '/api/v1' }],
    paths,
    components: {
      schemas: {
        DeviceMap: jsonSchema(deviceMapSchema, true),
        Event: eventSchema(EVENT_DATA),
        ShopEvent: eventSchema(SHOP_EVENT_DATA),
        StoredEvent: jsonSchema(storedEvent),
        Problem: jsonSchema(problemAnswer),
        Description: { type: 'object', required: ['openapi', 'info', 'paths'] },
        Anything: {},
      },
    },
  };
}

function parameters(path: string): object {
  const names = [...path.matchAll(/\{(\w+)\}/g)].map((found) => found[1]!);
  const each = names.map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } }));
  return each.length > 0 ? { parameters: each } : {};
}

function described(name: RouteName, route: Route): object {
  const takes = route.body ?? route.takes;
  const problems = { ...ALWAYS, ...(takes ? WITH_BODY : {}), ...route.problems };
  return {
    summary: route.summary,
    operationId: name.replaceAll(/[^\w]+/g, '_').replace(/_$/, ''),
    ...(route.query ? { parameters: queryOf(route.query) } : {}),
    ...(takes ? { requestBody: { required: true, content: content(route.takes ?? JSON_TYPE, route.body) } } : {}),
    responses: {
      [route.status ?? 200]: answered(route),
      ...Object.fromEntries(Object.entries(problems).map(([status, text]) => [status, problem(text)])),
    },
  };
}

function queryOf(query: Joi.ObjectSchema): object[] {
  const { properties = {}, required = [] } = jsonSchema(query) as { properties?: object; required?: string[] };
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema: schema as object,
  }));
}

function answered({ status, answer, gives = JSON_TYPE, summary }: Route): object {
  return status === 204 ? { description: 'done' } : { description: summary, content: content(gives, answer) };
}

function content(types: readonly string[], schema: Joi.Schema | undefined): object {
  return Object.fromEntries(types.map((type) => [type, schema ? { schema: jsonSchema(schema) } : {}]));
}

function problem(description: string): object {
  return {
    description,
    content: { 'application/problem+json': { schema: { $ref: `${NAMED}Problem` } } },
  };
}
