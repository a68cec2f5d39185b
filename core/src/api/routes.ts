import type Joi from 'joi';
import { type PackRequest, packRequest } from '../model/battery/index.ts';
import { type Bonded, type BondRequest, bondRequest } from '../physics/bonding/index.ts';
import { type LoadRequest, loadRequest } from '../fitting/load/index.ts';
import { type RimFit, type RimRequest, rimRequest } from '../fitting/rim/index.ts';
import { type Taped, type TapeRequest, tapeRequest } from '../fitting/tape/index.ts';
import { type CutPlan, type CutRequest, cutRequest } from '../planner/cut/index.ts';
import type { DeviceMap } from '../model/device-map/index.ts';
import { type HeatRequest, heatRequest, type HeatResult } from '../physics/heat/index.ts';
import { type checkNumbers, identityRequest } from '../model/identity/index.ts';
import { type Isolated, type IsolateRequest, isolateRequest } from '../physics/isolate/index.ts';
import type { InferredMap } from '../teardown/infer/index.ts';
import { type Teardown, teardownSchema } from '../teardown/record/index.ts';
import type { BenchEvent } from '../job/events/index.ts';
import type { OrderResult } from '../planner/order/index.ts';
import { PHOTO_TYPES } from '../model/photos/index.ts';
import type { Plan } from '../planner/plan/index.ts';
import {
  type Containers,
  type ContainersRequest,
  containersRequest,
  type MatchRequest,
  matchRequest,
  type ScrewMatch,
  type SwapCell,
  type SwapRequest,
  swapRequest,
} from '../screws/screws/index.ts';
import type { ShopEvent } from '../workshop/shop/index.ts';
import { type Torque, type TorqueRequest, torqueRequest } from '../physics/torque/index.ts';
import * as answer from './answers.ts';
import * as computed from './computed.ts';
import * as job from './job-answers.ts';
import * as request from './requests.ts';
import * as shop from './shop-answers.ts';
import { named } from './shape.ts';

type Numbers = ReturnType<typeof checkNumbers>;
interface Events {
  readonly events: readonly unknown[];
}

/**
 * Every route by its method and path: what it takes and what it answers. Server and web have their types from here, and
 * `ROUTES` the schemas to these types.
 */
export interface Routes {
  'GET /health': { answer: { readonly status: 'ok' } };
  'GET /openapi.json': { answer: object };
  'GET /device-maps': { answer: { readonly maps: readonly answer.MapLine[] } };
  'POST /device-maps': { body: unknown; answer: answer.StoredMapLine };
  'POST /device-maps/check': { body: unknown; answer: answer.MapFindings };
  'GET /device-maps/{id}': { query: { revision?: number }; answer: DeviceMap };
  'PUT /device-maps/{id}': { body: unknown; answer: answer.StoredMapLine };
  'DELETE /device-maps/{id}': { answer: void };
  'GET /device-maps/{id}/pick-card/{joint}.svg': { query: { revision?: number }; answer: string };
  'GET /device-maps/{id}/pick-card/{joint}.pdf': { query: { revision?: number }; answer: Blob };
  'GET /device-maps/{id}/screw-mat.svg': { query: request.MatQuery; answer: string };
  'GET /device-maps/{id}/screw-mat.pdf': { query: request.MatQuery; answer: Blob };
  'GET /jobs/{id}/screw-mat.svg': { query: request.MatQuery; answer: string };
  'GET /jobs/{id}/screw-mat.pdf': { query: request.MatQuery; answer: Blob };
  'GET /jobs': { query: request.JobsQuery; answer: { readonly jobs: readonly job.JobLine[] } };
  'POST /jobs': { body: request.NewJob; answer: job.JobLine };
  'GET /jobs/{id}': { answer: job.JobLine };
  'GET /jobs/{id}/events': { query: { after?: number }; answer: answer.EventList<BenchEvent> };
  'POST /jobs/{id}/events': { body: Events; answer: answer.Appended };
  'GET /jobs/{id}/export': { answer: Blob };
  'GET /jobs/{id}/report.pdf': { answer: Blob };
  'POST /jobs/{id}/photos': { answer: answer.StoredPhoto };
  'GET /jobs/{id}/photos/{hash}': { answer: Blob };
  'GET /parts': { answer: { readonly parts: readonly shop.PartLine[] } };
  'GET /parts/{id}/return.ics': { answer: string };
  'GET /shop': { answer: shop.ShopNow };
  'GET /shop/events': { answer: answer.EventList<ShopEvent> };
  'POST /shop/events': { body: Events; answer: answer.Appended };
  'GET /session': { answer: answer.SignedIn };
  'POST /session': { body: request.SignInBody; answer: answer.SignedIn };
  'GET /lead': { answer: answer.LeadsNow };
  'POST /lead': { body: request.LeadBody; answer: answer.LeadsNow };
  'DELETE /lead': { answer: void };
  'DELETE /session': { answer: void };
  'GET /changes': { answer: string };
  'POST /compute/battery': { body: PackRequest; answer: computed.BatteryAnswer };
  'POST /compute/identity': { body: Pick<Numbers, 'numbers'>; answer: Numbers };
  'POST /compute/cut-plan': { body: CutRequest; answer: CutPlan };
  'POST /compute/heat': { body: HeatRequest; answer: HeatResult };
  'POST /compute/order': { body: request.OrderRequest; answer: OrderResult };
  'POST /compute/plan': { body: request.PlanBody; answer: Plan };
  'POST /compute/possible': { body: request.PossibleBody; answer: computed.PossibleAnswer };
  'POST /compute/swap-table': { body: SwapRequest; answer: { readonly cells: readonly SwapCell[] } };
  'POST /compute/containers': { body: ContainersRequest; answer: Containers };
  'POST /compute/screw-match': { body: MatchRequest; answer: ScrewMatch };
  'POST /compute/torque': { body: TorqueRequest; answer: Torque };
  'POST /compute/bond': { body: BondRequest; answer: Bonded };
  'POST /compute/tape': { body: TapeRequest; answer: Taped };
  'POST /compute/load': { body: LoadRequest; answer: computed.LoadAnswer };
  'POST /compute/rim': { body: RimRequest; answer: RimFit };
  'POST /compute/isolate': { body: IsolateRequest; answer: Isolated };
  'POST /compute/infer-map': { body: Teardown; answer: InferredMap };
  'GET /stand-ins': { answer: { readonly standIns: readonly string[] } };
  'POST /stand-ins/registry': { body: { readonly number: string }; answer: answer.RegistrySaid };
  'GET /stand-ins/caliper': { query: request.CaliperQuery; answer: string };
  'GET /stand-ins/torque-driver': { query: request.DriverQuery; answer: string };
  'GET /stand-ins/self-test': { query: request.SelfTestQuery; answer: string };
  'GET /stand-ins/power-meter': { query: request.MeterQuery; answer: string };
  'GET /stand-ins/thermocouple': { query: object; answer: string };
}

export type RouteName = keyof Routes;

/** What else may be answered, by status. */
type Problems = Readonly<Partial<Record<401 | 403 | 404 | 409 | 413 | 422 | 429 | 503, string>>>;

/** A route as it is checked and described. */
export interface Route {
  readonly summary: string;
  readonly query?: Joi.ObjectSchema;
  readonly body?: Joi.Schema;
  /** of a body or an answer that is no JSON */
  readonly takes?: readonly string[];
  readonly gives?: readonly string[];
  readonly status?: 201 | 204;
  /** left out where it answers no JSON */
  readonly answer?: Joi.Schema;
  readonly problems?: Problems;
}

type SchemasOf<Shape> = Omit<Route, 'body' | 'query' | 'answer'> &
  (Shape extends { body: infer Body } ? { readonly body: Joi.Schema<Body> } : object) &
  (Shape extends { query: infer Query } ? { readonly query: Joi.ObjectSchema<Query> } : object) &
  (Shape extends { answer: void | string | Blob }
    ? object
    : Shape extends { answer: infer Answer }
      ? { readonly answer: Joi.Schema<Answer> }
      : object);

const NO_JOB = { 404: 'no such job' } as const;
const NO_MAP = { 404: 'no such map' } as const;
const FULL = { 503: 'compute is full; Retry-After says when' } as const;
const DEMO = 'only in the demonstration';

export const ROUTES: { readonly [Name in RouteName]: SchemasOf<Routes[Name]> } = {
  'GET /health': { summary: 'Is it there', answer: answer.health },
  'GET /openapi.json': { summary: 'This description', answer: named('Description') },
  'GET /device-maps': { summary: 'All maps, newest revisions', answer: answer.mapList },
  'POST /device-maps': {
    summary: 'Add a map',
    body: named('DeviceMap'),
    status: 201,
    answer: answer.storedMap,
    problems: { 409: 'the id is taken', ...FULL },
  },
  'POST /device-maps/check': {
    summary: 'Check a map without storing it; whatever it is, it is answered',
    body: named('Anything'),
    answer: answer.mapFindings,
    problems: FULL,
  },
  'GET /device-maps/{id}': {
    summary: 'One map; ?revision=n an older one',
    query: request.revisionQuery,
    answer: named('DeviceMap'),
    problems: NO_MAP,
  },
  'PUT /device-maps/{id}': {
    summary: 'Add a revision; older ones are kept',
    body: named('DeviceMap'),
    answer: answer.storedMap,
    problems: { ...NO_MAP, ...FULL },
  },
  'DELETE /device-maps/{id}': {
    summary: 'Delete a map that no job uses',
    status: 204,
    problems: { ...NO_MAP, 409: 'a job uses it' },
  },
  'GET /device-maps/{id}/pick-card/{joint}.svg': {
    summary: 'The pick card of a bond, one page in millimetres',
    query: request.revisionQuery,
    gives: ['image/svg+xml'],
    problems: { 404: 'no such bond, or none that is cut' },
  },
  'GET /device-maps/{id}/pick-card/{joint}.pdf': {
    summary: 'The same page to print at 100 %',
    query: request.revisionQuery,
    gives: ['application/pdf'],
    problems: { 404: 'no such bond, or none that is cut' },
  },
  'GET /device-maps/{id}/screw-mat.svg': {
    summary: 'One sheet of the screw mat of a device, in millimetres; ?paper=letter, ?sheet=n',
    query: request.matQuery,
    gives: ['image/svg+xml'],
    problems: { 404: 'no such map, sheet, or no screws', 422: 'a query out of range' },
  },
  'GET /device-maps/{id}/screw-mat.pdf': {
    summary: 'All sheets of the screw mat of a device, to print at 100 %',
    query: request.matQuery,
    gives: ['application/pdf'],
    problems: { 404: 'no such map, or no screws', 422: 'a query out of range' },
  },
  'GET /jobs/{id}/screw-mat.svg': {
    summary: 'One sheet of the screw mat of a repair, with a code that opens it',
    query: request.matQuery,
    gives: ['image/svg+xml'],
    problems: { 404: 'no such job, sheet, or no screws', 422: 'a query out of range' },
  },
  'GET /jobs/{id}/screw-mat.pdf': {
    summary: 'All sheets of the screw mat of a repair, to print at 100 %',
    query: request.matQuery,
    gives: ['application/pdf'],
    problems: { 404: 'no such job, or no screws', 422: 'a query out of range' },
  },
  'GET /jobs': {
    summary: 'Jobs, newest first; bare, all of them',
    query: request.jobsQuery,
    answer: job.jobList,
    problems: { 422: 'a query out of range' },
  },
  'POST /jobs': {
    summary: 'Take in a repair',
    body: request.newJobSchema,
    status: 201,
    answer: job.jobLine,
    problems: { 409: 'the id is taken' },
  },
  'GET /jobs/{id}': { summary: 'One job and where it stands', answer: job.jobLine, problems: NO_JOB },
  'GET /jobs/{id}/events': {
    summary: 'All events in order; ?after=n those after the first n',
    query: request.eventsQuery,
    answer: answer.jobEvents,
    problems: { ...NO_JOB, 422: 'a query out of range' },
  },
  'POST /jobs/{id}/events': {
    summary: 'Append events; sending again changes nothing',
    body: request.eventsRequest('Event'),
    answer: answer.appended,
    problems: { ...NO_JOB, 409: 'the job can not be read' },
  },
  'GET /jobs/{id}/report.pdf': {
    summary: 'The report that the owner is handed, one or two pages',
    gives: ['application/pdf'],
    problems: { ...NO_JOB, 409: 'the job can not be read' },
  },
  'GET /jobs/{id}/export': { summary: 'The job whole, as a zip', gives: ['application/zip'], problems: NO_JOB },
  'POST /jobs/{id}/photos': {
    summary: 'Store a picture, by its content; the photo event that names it comes after',
    takes: PHOTO_TYPES,
    status: 201,
    answer: answer.storedPhoto,
    problems: NO_JOB,
  },
  'GET /jobs/{id}/photos/{hash}': {
    summary: 'A picture of this job',
    gives: PHOTO_TYPES,
    problems: { 404: 'no such picture of this job' },
  },
  'GET /parts': { summary: 'The parts desk over all jobs, each with its verdict', answer: shop.partList },
  'GET /parts/{id}/return.ics': {
    summary: 'Its last day of return, as a whole day of a calendar (RFC 5545)',
    gives: ['text/calendar'],
    problems: { 404: 'no such part' },
  },
  'GET /shop': {
    summary: 'The workshop: people, tools, stock as it is left, limits, schools, zone, benches in use',
    answer: shop.shopNow,
  },
  'GET /shop/events': { summary: 'All events of the workshop', answer: answer.shopEvents },
  'POST /shop/events': {
    summary: 'Append events of the workshop; sending again changes nothing',
    body: request.eventsRequest('ShopEvent'),
    answer: answer.appended,
  },
  'GET /session': { summary: 'Does anybody have to sign in, and who has', answer: answer.signedIn },
  'POST /session': {
    summary: 'Sign in with the password of the workshop, under one’s own name; the answer sets a cookie',
    body: request.signInRequest,
    answer: answer.signedIn,
    problems: {
      401: 'another password',
      409: 'nobody signs in on this machine',
      429: 'too many tries; Retry-After says when',
    },
  },
  'DELETE /session': { summary: 'Sign out', status: 204 },
  'GET /lead': { summary: 'Which leads have a secret, and who has shown one here', answer: answer.leadsNow },
  'POST /lead': {
    summary: 'A lead shows their own secret, or chooses it; the answer sets a cookie that holds for a minute',
    body: request.leadRequest,
    answer: answer.leadsNow,
    problems: {
      401: 'another secret',
      403: 'somebody else is signed in',
      409: 'no such lead, a secret was set already, or none was',
      429: 'too many tries; Retry-After says when',
    },
  },
  'DELETE /lead': { summary: 'What only a lead may say is asked for anew', status: 204 },
  'GET /changes': {
    summary: 'A stream of what changes: jobs, the workshop, maps, each with its revision',
    gives: ['text/event-stream'],
    problems: { 503: 'too many listen' },
  },
  'POST /compute/battery': {
    summary: 'A pack, and how long it takes to run down',
    body: packRequest,
    answer: computed.batteryAnswer,
    problems: FULL,
  },
  'POST /compute/identity': {
    summary: 'Equipment numbers: valid, and the same',
    body: identityRequest,
    answer: computed.identityAnswer,
    problems: FULL,
  },
  'POST /compute/cut-plan': {
    summary: 'The order of edges of a cut, and where to heat again',
    body: cutRequest,
    answer: computed.cutAnswer,
    problems: FULL,
  },
  'POST /compute/torque': {
    summary: 'The torque of a preload, or the preload of a torque, and how far it is from stripping',
    body: torqueRequest,
    answer: computed.torqueAnswer,
    problems: FULL,
  },
  'POST /compute/bond': {
    summary: 'The pressure of a weight on a bond, or the weight for a pressure, and how strong it is by when',
    body: bondRequest,
    answer: computed.bondAnswer,
    problems: FULL,
  },
  'POST /compute/tape': {
    summary: 'Strips of tape along edges with their gaps kept, cut from the rolls at hand with least waste',
    body: tapeRequest,
    answer: computed.tapeAnswer,
    problems: FULL,
  },
  'POST /compute/load': {
    summary: 'Which weights at hand make up a load, and where they stand so that it is centred',
    body: loadRequest,
    answer: computed.loadAnswer,
    problems: FULL,
  },
  'POST /compute/rim': {
    summary: 'What the steps at a few places of a rim are: flush, even, tilted, bent, or a high spot',
    body: rimRequest,
    answer: computed.rimAnswer,
    problems: FULL,
  },
  'POST /compute/isolate': {
    summary: 'Which sets of faults explain what was tried, and what to try next',
    body: isolateRequest,
    answer: computed.isolateAnswer,
    problems: FULL,
  },
  'POST /compute/infer-map': {
    summary: 'A device map from the record of one teardown, how sure each entry of it is, and what to ask next',
    body: teardownSchema,
    answer: computed.inferredAnswer,
    problems: FULL,
  },
  'POST /compute/swap-table': {
    summary: 'Every screw kind in every hole: does it fit, and what is wrong where it does not',
    body: swapRequest,
    answer: computed.swapAnswer,
    problems: FULL,
  },
  'POST /compute/containers': {
    summary: 'Which screw kinds lie together in so many containers, so that the cost is least',
    body: containersRequest,
    answer: computed.containersAnswer,
    problems: FULL,
  },
  'POST /compute/screw-match': {
    summary: 'Loose screws back to their holes, with exact probabilities',
    body: matchRequest,
    answer: computed.matchAnswer,
    problems: FULL,
  },
  'POST /compute/heat': {
    summary: 'Transient conduction through a stack, from the heated face',
    body: heatRequest,
    answer: computed.heatAnswer,
    problems: FULL,
  },
  'POST /compute/order': {
    summary: 'An order of least cost',
    body: request.orderRequest,
    answer: computed.orderAnswer,
    problems: FULL,
  },
  'POST /compute/plan': {
    summary: 'A plan from any state',
    body: request.planRequest,
    answer: computed.planAnswer,
    problems: FULL,
  },
  'POST /compute/possible': {
    summary: 'What may be done now, and what holds the rest',
    body: request.possibleRequest,
    answer: computed.possibleAnswer,
    problems: FULL,
  },
  'GET /stand-ins': { summary: `Which instruments are simulated here; ${DEMO}`, answer: answer.standInList },
  'POST /stand-ins/registry': {
    summary: `A register that is simulated; ${DEMO}`,
    body: request.registryRequest,
    answer: answer.registrySaid,
  },
  'GET /stand-ins/caliper': {
    summary: `A caliper that is simulated, as a stream of readings of screws; ${DEMO}`,
    query: request.caliperQuery,
    gives: ['text/event-stream'],
    problems: { 422: 'settings out of range', 503: 'all instruments are in use' },
  },
  'GET /stand-ins/torque-driver': {
    summary: `A torque driver that is simulated, as a stream of peaks; ${DEMO}`,
    query: request.driverQuery,
    gives: ['text/event-stream'],
    problems: { 422: 'settings out of range', 503: 'all instruments are in use' },
  },
  'GET /stand-ins/self-test': {
    summary: `A device under test that is simulated and answers for its functions, as a stream; ${DEMO}`,
    query: request.selfTestQuery,
    gives: ['text/event-stream'],
    problems: {
      404: 'no such job',
      422: 'a function or plug that its map does not have',
      503: 'all instruments are in use',
    },
  },
  'GET /stand-ins/power-meter': {
    summary: `A power meter that is simulated, as a stream of readings; ${DEMO}`,
    query: request.meterQuery,
    gives: ['text/event-stream'],
    problems: { 422: 'settings out of range', 503: 'all meters are in use' },
  },
  'GET /stand-ins/thermocouple': {
    summary: `A thermocouple that is simulated, on a device being warmed, as a stream of readings; ${DEMO}`,
    query: request.thermocoupleQuery,
    gives: ['text/event-stream'],
    problems: { 404: 'no such bond', 422: 'settings out of range', 503: 'all instruments are in use' },
  },
};
