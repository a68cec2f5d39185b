import { createHash } from 'node:crypto';
import { constants, setPriority } from 'node:os';
import { isMainThread, workerData } from 'node:worker_threads';
import { DEFAULT_MS, type DoneRequest } from '@nibrel/core/api';
import { runDown, transportHints } from '@nibrel/core/model/battery';
import { bonded } from '@nibrel/core/physics/bonding';
import { loadFrom } from '@nibrel/core/fitting/load';
import { fitRim } from '@nibrel/core/fitting/rim';
import { tapeFor } from '@nibrel/core/fitting/tape';
import { isolate } from '@nibrel/core/physics/isolate';
import { inferMap } from '@nibrel/core/teardown/infer';
import { torqueOf } from '@nibrel/core/physics/torque';
import { EVENT_DATA } from '@nibrel/core/job/events';
import { planCut } from '@nibrel/core/planner/cut';
import { type DeviceMap, deviceMapSchema } from '@nibrel/core/model/device-map';
import { heatThrough } from '@nibrel/core/physics/heat';
import { assembled, mechanismOf, namedOp, numberedOp, possibleNow, replay } from '@nibrel/core/planner/holds';
import { checkNumbers } from '@nibrel/core/model/identity';
import { checkDeviceMap, type MapCheck } from '@nibrel/core/planner/map-check';
import { solveOrder } from '@nibrel/core/planner/order';
import { takePhoto } from '@nibrel/core/model/photos';
import { type DoneOp, planRepair } from '@nibrel/core/planner/plan';
import { type Paper, screwMat } from '@nibrel/core/screws/screw-mat';
import { asData, type Problem, problemText, Refusal, wrong } from '@nibrel/core/model/refusal';
import { containersFor, matchScrews, swapTable } from '@nibrel/core/screws/screws';
import { parsedJson } from '../http/body.ts';
import { taken } from '../http/route.ts';
import { lengthProblem } from '../sizes/lengths.ts';
import { HttpProblem } from '../http/http-problem.ts';
import { pdfOf, type Sheet } from '../print/pdf.ts';
import { printedReport, type ReportOf } from '../print/report.ts';
import { type MatOf, screwMatSheets } from '../print/screw-mat.ts';
import { shapeProblem } from '../store/append.ts';
import { carryOver } from '../store/log-carrier.ts';
import { lookThrough } from '../store/looked-through.ts';
import { nextOf, type NextRequest } from './next.ts';

/** What a compute route asks of a worker thread. Everything heavy, the checking too, is done here. */
export interface Task {
  readonly kind: keyof typeof COMPUTE;
  readonly body?: unknown;
  /** the body as it came, in place of it */
  readonly text?: string;
  /** is the answer wanted as JSON text? */
  readonly asText?: boolean;
}

/** A refusal crosses the thread as data, since classes do not. */
export type Answer =
  | { readonly value: unknown }
  | { readonly refused: string; readonly errors: readonly Problem[]; readonly status?: number };

/** A patient thread runs at low priority, so that recording the work in hand never waits for what is only computed. */
if (isPatient(workerData)) setPriority(constants.priority.PRIORITY_LOW);

function isPatient(given: unknown): boolean {
  return !isMainThread && JSON.stringify(given ?? null).includes('"isPatient":true');
}

export default async function work({ kind, body, text, asText }: Task): Promise<Answer> {
  try {
    const value: unknown = await COMPUTE[kind](text === undefined ? body : parsedJson(text));
    return { value: asText ? new TextEncoder().encode(JSON.stringify(value)) : value };
  } catch (error) {
    if (error instanceof HttpProblem) return { refused: error.message, errors: error.errors, status: error.status };
    if (error instanceof Refusal) return { refused: problemText(error), errors: [asData(error)] };
    throw error;
  }
}

const COMPUTE = {
  check: (body: unknown): Pick<MapCheck, 'errors' | 'warnings'> => {
    const long = lengthProblem(deviceMapSchema, body);
    if (long) return { errors: [long], warnings: [] };
    const { errors, warnings } = checkDeviceMap(body);
    return { errors, warnings };
  },
  /** a map that is to be stored: as it is, where there is nothing wrong with it */
  'check-in': (body: unknown) => {
    const { errors, warnings } = COMPUTE.check(body);
    if (errors.length > 0) throw new HttpProblem(422, 'The device map can not be taken.', errors);
    const { id, name, kind } = body as DeviceMap;
    return { id, name, kind, warnings, body: JSON.stringify(body) };
  },
  order: (body: unknown) => {
    const problem = taken('POST /compute/order', body);
    const ids = new Set(problem.ops.map((op) => op.id));
    const unknown = problem.ops.flatMap((op, index) =>
      op.after.flatMap((id, n) =>
        ids.has(id) ? [] : [wrong(`ops[${index}].after[${n}]`, `There is no operation "${id}".`, 'Name one of these.')],
      ),
    );
    if (unknown.length > 0)
      throw new HttpProblem(422, 'Some operations come after what is not there.', unknown.slice(0, 100));
    return solveOrder(problem, budget(problem.timeLimitMs));
  },
  plan: (body: unknown) => {
    const request = taken('POST /compute/plan', body);
    const map = checkedMap(request.map);
    const { targets, policy, times, timeLimitMs } = request;
    return planRepair({ map, targets, policy, times, done: request.done?.map(doneOp) }, budget(timeLimitMs));
  },
  heat: (body: unknown) => heatThrough(taken('POST /compute/heat', body)),
  battery: (body: unknown) => {
    const request = taken('POST /compute/battery', body);
    return { ...runDown(request), transport: transportHints(request.cells, request.wiring) };
  },
  identity: (body: unknown) => checkNumbers(taken('POST /compute/identity', body).numbers),
  'cut-plan': (body: unknown) => planCut(taken('POST /compute/cut-plan', body)),
  torque: (body: unknown) => torqueOf(taken('POST /compute/torque', body)),
  bond: (body: unknown) => bonded(taken('POST /compute/bond', body)),
  tape: (body: unknown) => tapeFor(taken('POST /compute/tape', body)),
  load: (body: unknown) => ({ load: loadFrom(taken('POST /compute/load', body)) }),
  rim: (body: unknown) => fitRim(taken('POST /compute/rim', body)),
  isolate: (body: unknown) => isolate(taken('POST /compute/isolate', body)),
  'infer-map': (body: unknown) => inferMap(taken('POST /compute/infer-map', body)),
  'swap-table': (body: unknown) => ({ cells: swapTable(taken('POST /compute/swap-table', body)) }),
  containers: (body: unknown) => containersFor(taken('POST /compute/containers', body)),
  'screw-match': (body: unknown) => matchScrews(taken('POST /compute/screw-match', body)),
  /** what is wrong with the shape of each event of a job */
  events: (body: unknown) => (body as unknown[]).map((each) => shapeProblem(EVENT_DATA, each)),
  'new-job': (body: unknown) => taken('POST /jobs', body),
  pdf: async (body: unknown) => {
    const { title, sheets } = body as { title: string; sheets: readonly Sheet[] };
    return pdfOf(title, sheets);
  },
  report: async (body: unknown) => printedReport(body as ReportOf),
  'screw-mat': (body: unknown) => {
    const { map, paper, of } = body as { map: DeviceMap; paper: Paper; of: MatOf };
    return screwMatSheets(screwMat(map, paper), of);
  },
  photo: (body: unknown) => {
    const { content, ...facts } = takePhoto(body as Uint8Array);
    return { ...facts, content, hash: createHash('sha256').update(content).digest('hex') };
  },
  next: (body: unknown) => nextOf(body as NextRequest),
  'carry-over': (body: unknown) => carryOver(body as string),
  'look-through': (body: unknown) => lookThrough(body as string),
  possible: (body: unknown) => {
    const request = taken('POST /compute/possible', body);
    const map = checkedMap(request.map);
    const mechanism = mechanismOf(map);
    const ops = (request.done ?? []).map((each, index) => {
      try {
        return numberedOp(mechanism, doneOp(each));
      } catch (error) {
        if (error instanceof Refusal) throw new Refusal(wrong(`done[${index}]`, error.message, error.cure));
        throw error;
      }
    });
    const { state, illegal } = replay(mechanism, assembled(mechanism), ops);
    const warnings = illegal.map(({ op, index }) => {
      const { kind, joint, part } = namedOp(mechanism, op);
      return {
        code: 'out-of-order',
        ...(joint ? { joint } : { part }),
        text: `done[${index}], ${kind} "${joint ?? part}", went against the rules; what follows goes on from the state it left.`,
      };
    });
    const first = map.parts.filter(
      (part, index) => part.removeFirst && state.status[index] !== 2 && state.group[index] === mechanism.base,
    );
    const cautions = first.map((part) => ({
      code: 'remove-first',
      part: part.id,
      text: `${part.name} comes out before anything is heated, cut or opened.`,
    }));
    return { ...possibleNow(mechanism, state), warnings: [...warnings, ...cautions] };
  },
};

function doneOp(done: DoneRequest): DoneOp {
  if ('release' in done) return { kind: 'release', joint: done.release };
  if ('make' in done) return { kind: 'make', joint: done.make };
  if ('open' in done) return { kind: 'open', part: done.open };
  if ('lift' in done) return { kind: 'lift', part: done.lift };
  if ('close' in done) return { kind: 'close', part: done.close };
  return { kind: 'fit', part: done.fit, onto: done.onto, new: done.new };
}

function checkedMap(json: unknown): DeviceMap {
  const { map, errors } = checkDeviceMap(json);
  if (map) return map;
  throw new HttpProblem(
    422,
    'The device map can not be taken.',
    errors.map((each) => ({ ...each, path: each.path ? `map.${each.path}` : 'map' })),
  );
}

function budget(limitMs = DEFAULT_MS) {
  return { now: () => performance.now(), limitMs };
}
