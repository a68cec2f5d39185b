import { writeFileSync } from 'node:fs';
import { EVENT_DATA } from '@nibrel/core/job/events';
import { deviceMapSchema } from '@nibrel/core/model/device-map';
import { SHOP_EVENT_DATA } from '@nibrel/core/workshop/shop';
import { format, resolveConfig } from 'prettier';
import { eventTable } from '../server/src/http/event-table.ts';
import { eventSchema, jsonSchema, openApi } from '../server/src/http/openapi.ts';

// npm run schemas: publishes what the code takes, as JSON Schema and OpenAPI, to docs/.
const draft = { $schema: 'https://json-schema.org/draft/2020-12/schema' };
const publish = (name: string, schema: object) =>
  writeFileSync(new URL(`../docs/${name}`, import.meta.url), `${JSON.stringify(schema, null, 2)}\n`);

publish('device-map.schema.json', { ...draft, title: 'Device map, version 1', ...jsonSchema(deviceMapSchema, true) });
publish('events.schema.json', { ...draft, title: 'Event of a repair job', ...eventSchema(EVENT_DATA) });
publish('shop-events.schema.json', { ...draft, title: 'Event of the workshop', ...eventSchema(SHOP_EVENT_DATA) });
publish('openapi.json', openApi());

const page = 'docs/events.md';
const table = await format(eventTable(), { ...(await resolveConfig(page)), parser: 'markdown' });
writeFileSync(new URL(`../${page}`, import.meta.url), table);
