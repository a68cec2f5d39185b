import { packRequest } from '@nibrel/core/battery';
import { EVENT_DATA, eventEnvelope } from '@nibrel/core/job';
import { cutRequest } from '@nibrel/core/cut';
import { deviceMapSchema } from '@nibrel/core/device-map';
import { heatRequest } from '@nibrel/core/heat';
import { identityRequest } from '@nibrel/core/identity';
import { PHOTO_TYPES } from '@nibrel/core/photos';
import { SHOP_EVENT_DATA } from '@nibrel/core/shop';
import type Joi from 'joi';
import { newJobSchema, orderRequest, planRequest, possibleRequest } from '../compute/requests.ts';

const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
});
const json = (schema: object) => ({ 'application/json': { schema } });
const ok = (description: string, schema: object = { type: 'object' }) => ({ description, content: json(schema) });
const ref = (name: string) => ({ $ref: `#/components/schemas/${name}` });
const COMMON = { 403: problem('foreign Host or Origin') };
const WITH_BODY = {
  ...COMMON,
  400: problem('not JSON'),
  413: problem('over the size limit'),
  415: problem('another content type than is taken'),
  422: problem('refused by validation'),
};
const body = (schema: object) => ({ required: true, content: json(schema) });
const path = (name: string) => ({ name, in: 'path', required: true, schema: { type: 'string' } });

/** A Joi schema as JSON Schema. Unknown fields are allowed wherever they only warn. */
export function jsonSchema(schema: Joi.Schema, open = false): object {
  const standard = (schema as unknown as { '~standard': { jsonSchema: { input(o: object): object } } })['~standard'];
  const made = standard.jsonSchema.input({ target: 'draft-2020-12' });
  return open ? (JSON.parse(JSON.stringify(made, withoutClosing)) as object) : made;
}

function withoutClosing(key: string, value: unknown): unknown {
  return key === 'additionalProperties' && value === false ? undefined : value;
}

/** The API described, OpenAPI 3.1. */
export function openApi(): object {
  const compute = (summary: string, request: string) => ({
    post: {
      summary,
      requestBody: body(ref(request)),
      responses: { 200: ok('the result'), ...WITH_BODY, 503: problem('compute is full; Retry-After says when') },
    },
  });
  return {
    openapi: '3.1.0',
    info: { title: 'Nibrel', version: '1', description: 'What holds what, plans, jobs and their events.' },
    servers: [{ url: '/api/v1' }],
    paths: {
      '/health': { get: { summary: 'Is it there', responses: { 200: ok('{"status":"ok"}') } } },
      '/openapi.json': { get: { summary: 'This description', responses: { 200: ok('OpenAPI 3.1') } } },
      '/device-maps': {
        get: { summary: 'All maps, newest revisions', responses: { 200: ok('{maps}'), ...COMMON } },
        post: {
          summary: 'Add a map',
          requestBody: body(ref('DeviceMap')),
          responses: { 201: ok('{id, revision, warnings}'), ...WITH_BODY, 409: problem('the id is taken') },
        },
      },
      '/device-maps/check': {
        post: {
          summary: 'Check a map without storing it',
          requestBody: body({}),
          responses: { 200: ok('{errors, warnings}'), ...WITH_BODY },
        },
      },
      '/device-maps/{id}': {
        parameters: [path('id')],
        get: {
          summary: 'One map; ?revision=n an older one',
          parameters: [{ name: 'revision', in: 'query', schema: { type: 'integer', minimum: 1 } }],
          responses: { 200: ok('the map', ref('DeviceMap')), ...COMMON, 404: problem('no such map') },
        },
        put: {
          summary: 'Add a revision; older ones are kept',
          requestBody: body(ref('DeviceMap')),
          responses: { 200: ok('{id, revision, warnings}'), ...WITH_BODY, 404: problem('no such map') },
        },
        delete: {
          summary: 'Delete a map that no job uses',
          responses: {
            204: { description: 'gone' },
            ...COMMON,
            404: problem('no such map'),
            409: problem('a job uses it'),
          },
        },
      },
      '/jobs': {
        get: {
          summary: 'Jobs, newest first; bare, all of them',
          parameters: [
            { name: 'open', in: 'query', schema: { type: 'boolean' } },
            { name: 'finished', in: 'query', schema: { type: 'boolean' } },
            { name: 'since', in: 'query', schema: { type: 'string', format: 'date-time' } },
            { name: 'limit', in: 'query', schema: { type: 'integer', minimum: 1 } },
          ],
          responses: { 200: ok('{jobs}'), ...COMMON, 422: problem('a query out of range') },
        },
        post: {
          summary: 'Take in a repair',
          requestBody: body(ref('NewJob')),
          responses: { 201: ok('the job'), ...WITH_BODY },
        },
      },
      '/jobs/{id}': {
        parameters: [path('id')],
        get: {
          summary: 'One job and where it stands',
          responses: { 200: ok('the job'), ...COMMON, 404: problem('no such job') },
        },
      },
      '/jobs/{id}/events': {
        parameters: [path('id')],
        get: {
          summary: 'All events in order; ?after=n those after the first n',
          parameters: [{ name: 'after', in: 'query', schema: { type: 'integer', minimum: 0 } }],
          responses: { 200: ok('{events, revision}'), ...COMMON, 404: problem('no such job') },
        },
        post: {
          summary: 'Append events; sending again changes nothing',
          requestBody: body({
            type: 'object',
            required: ['events'],
            properties: { events: { type: 'array', maxItems: 1000, items: ref('Event') } },
          }),
          responses: {
            200: ok('{accepted, duplicate, rejected, revision}'),
            ...WITH_BODY,
            404: problem('no such job'),
            409: problem('the job can not be read'),
          },
        },
      },
      '/changes': {
        get: {
          summary: 'A stream of what changes: jobs, the workshop, maps, each with its revision',
          responses: {
            200: { description: 'server-sent events', content: { 'text/event-stream': {} } },
            ...COMMON,
            503: problem('too many listen'),
          },
        },
      },
      '/session': {
        get: {
          summary: 'Does anybody have to sign in, and who has',
          responses: { 200: ok('{needed, person, role}'), ...COMMON },
        },
        post: {
          summary: 'Sign in with the password of the workshop, under one’s own name',
          requestBody: body({
            type: 'object',
            required: ['password', 'person'],
            properties: { password: { type: 'string' }, person: { type: 'string' } },
          }),
          responses: {
            200: ok('{needed, person, role}, and a cookie'),
            ...WITH_BODY,
            401: problem('another password'),
            409: problem('nobody signs in on this machine'),
            429: problem('too many tries; Retry-After says when'),
          },
        },
        delete: { summary: 'Sign out', responses: { 204: { description: 'signed out' }, ...COMMON } },
      },
      '/jobs/{id}/export': {
        parameters: [path('id')],
        get: {
          summary: 'The job whole, as a zip',
          responses: {
            200: { description: 'zip', content: { 'application/zip': {} } },
            ...COMMON,
            404: problem('no such job'),
          },
        },
      },
      '/jobs/{id}/photos': {
        parameters: [path('id')],
        post: {
          summary: 'Store a picture, by its content; the photo event that names it comes after',
          requestBody: {
            required: true,
            content: Object.fromEntries(
              PHOTO_TYPES.map((type) => [type, { schema: { type: 'string', format: 'binary' } }]),
            ),
          },
          responses: { 201: ok('{hash, type, width, height, bytes}'), ...WITH_BODY, 404: problem('no such job') },
        },
      },
      '/jobs/{id}/photos/{hash}': {
        parameters: [path('id'), path('hash')],
        get: {
          summary: 'A picture of this job',
          responses: {
            200: { description: 'the picture', content: Object.fromEntries(PHOTO_TYPES.map((type) => [type, {}])) },
            ...COMMON,
            404: problem('no such picture of this job'),
          },
        },
      },
      '/parts': {
        get: {
          summary: 'The parts desk over all jobs, each with its verdict',
          responses: { 200: ok('{parts}'), ...COMMON },
        },
      },
      '/parts/{id}/return.ics': {
        parameters: [path('id')],
        get: {
          summary: 'Its last day of return, as a whole day of a calendar (RFC 5545)',
          responses: {
            200: { description: 'calendar', content: { 'text/calendar': {} } },
            ...COMMON,
            404: problem('no such part'),
          },
        },
      },
      '/shop': {
        get: {
          summary: 'The workshop: people, tools, stock as it is left, limits, schools, zone, benches in use',
          responses: {
            200: ok('{people, tools, stock, limits, schools, zone, benches, today, revision, standIns}'),
            ...COMMON,
          },
        },
      },
      '/shop/events': {
        get: { summary: 'All events of the workshop', responses: { 200: ok('{events, revision}'), ...COMMON } },
        post: {
          summary: 'Append events of the workshop; sending again changes nothing',
          requestBody: body({
            type: 'object',
            required: ['events'],
            properties: { events: { type: 'array', maxItems: 1000, items: ref('ShopEvent') } },
          }),
          responses: { 200: ok('{accepted, duplicate, rejected, revision}'), ...WITH_BODY },
        },
      },
      '/device-maps/{id}/pick-card/{joint}.svg': {
        parameters: [path('id'), path('joint')],
        get: {
          summary: 'The pick card of a bond, one page in millimetres',
          responses: {
            200: { description: 'drawing', content: { 'image/svg+xml': {} } },
            ...COMMON,
            404: problem('no such bond, or none that is cut'),
          },
        },
      },
      '/device-maps/{id}/pick-card/{joint}.pdf': {
        parameters: [path('id'), path('joint')],
        get: {
          summary: 'The same page to print at 100 %',
          responses: {
            200: { description: 'page', content: { 'application/pdf': {} } },
            ...COMMON,
            404: problem('no such bond, or none that is cut'),
          },
        },
      },
      '/stand-ins/thermocouple': {
        get: {
          summary: 'Demonstration only: a thermocouple that streams simulated readings of a device being warmed',
          responses: {
            200: { description: 'readings', content: { 'text/event-stream': {} } },
            ...COMMON,
            404: problem('no such bond'),
            422: problem('refused by validation'),
            503: problem('all instruments are in use'),
          },
        },
      },
      '/stand-ins/registry': {
        post: {
          summary: 'A register that is simulated; only in the demonstration',
          requestBody: body({ type: 'object', required: ['number'], properties: { number: { type: 'string' } } }),
          responses: { 200: ok('{answer, number, at, where, simulated: true}'), ...WITH_BODY },
        },
      },
      '/stand-ins/power-meter': {
        get: {
          summary: 'A power meter that is simulated, as a stream of readings; only in the demonstration',
          parameters: ['charge', 'energy_Wh', 'load_W', 'pace'].map((name) => ({
            name,
            in: 'query',
            required: name !== 'pace',
            schema: { type: 'number' },
          })),
          responses: {
            200: { description: 'readings', content: { 'text/event-stream': {} } },
            ...COMMON,
            422: problem('settings out of range'),
            503: problem('all meters are in use'),
          },
        },
      },
      '/compute/battery': compute('A pack, and how long it takes to run down', 'BatteryRequest'),
      '/compute/identity': compute('Equipment numbers: valid, and the same', 'IdentityRequest'),
      '/compute/cut-plan': compute('The order of edges of a cut, and where to heat again', 'CutRequest'),
      '/compute/heat': compute('Transient conduction through a stack, from the heated face', 'HeatRequest'),
      '/compute/order': compute('An order of least cost', 'OrderRequest'),
      '/compute/plan': compute('A plan from any state', 'PlanRequest'),
      '/compute/possible': compute('What may be done now, and what holds the rest', 'PossibleRequest'),
    },
    components: {
      schemas: {
        DeviceMap: jsonSchema(deviceMapSchema, true),
        Event: eventSchema(EVENT_DATA),
        ShopEvent: eventSchema(SHOP_EVENT_DATA),
        NewJob: jsonSchema(newJobSchema),
        BatteryRequest: jsonSchema(packRequest),
        IdentityRequest: jsonSchema(identityRequest),
        HeatRequest: jsonSchema(heatRequest),
        CutRequest: jsonSchema(cutRequest),
        OrderRequest: jsonSchema(orderRequest),
        PlanRequest: jsonSchema(planRequest),
        PossibleRequest: jsonSchema(possibleRequest),
        Problem: {
          type: 'object',
          required: ['title', 'status'],
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            detail: { type: 'string' },
            errors: {
              type: 'array',
              items: { type: 'object', properties: { path: { type: 'string' }, message: { type: 'string' } } },
            },
          },
        },
      },
    },
  };
}

/** Every event: its envelope, and what its type says of its data. */
export function eventSchema(types: Readonly<Record<string, Joi.Schema>>): object {
  const envelope = jsonSchema(eventEnvelope) as { properties: object; required: string[] };
  return {
    oneOf: Object.entries(types).map(([type, data]) => ({
      title: type,
      type: 'object',
      required: envelope.required,
      properties: { ...envelope.properties, type: { const: type }, data: jsonSchema(data) },
    })),
  };
}
