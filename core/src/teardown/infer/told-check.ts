import type { DeviceMap } from '../../model/device-map/index.ts';
import { checkDeviceMap } from '../../planner/map-check/index.ts';
import { type Problem, Refusal, wrong } from '../../model/refusal/index.ts';
import type { Line, Teardown } from '../record/index.ts';

/**
 * Is everything there that is named?
 * @throws Refusal with the path of what is not
 */
export function checkTold(told: Teardown): void {
  const [problem] = problems(told);
  if (problem) throw new Refusal(problem);
}

/** @throws Refusal where what was told of a joint or part is no map's */
export function checkDraft(map: DeviceMap): void {
  const [error] = checkDeviceMap(map).errors;
  if (error) throw new Refusal({ ...error, path: `map.${error.path}` });
}

function* problems(told: Teardown): Generator<Problem> {
  const parts = new Set(told.parts.map(({ id }) => id));
  const bases = told.parts.filter(({ base }) => base);
  if (bases.length !== 1)
    yield wrong('parts', 'One part has to be the base.', 'Mark the frame that all else is held to.');
  const hinges = new Set(told.hinges.map(({ id }) => id));
  const joints = new Set(hinges);
  for (const [at, line] of told.record.entries()) {
    const path = `record[${at}]`;
    yield* ofLine(line, path, parts);
    if (line.kind !== 'release') continue;
    if (hinges.has(line.joint)) yield wrong(`${path}.joint`, 'A hinge is never released.');
    if (!joints.has(line.joint)) yield* ofNewJoint(line, path);
    joints.add(line.joint);
  }
  for (const [number, repair] of told.repairs.entries()) {
    for (const [at, line] of repair.entries()) yield* ofLine(line, `repairs[${number}][${at}]`, parts);
  }
  for (const [at, { holds, to }] of told.hinges.entries()) {
    for (const id of [...holds, to]) if (!parts.has(id)) yield unknown(`hinges[${at}]`, 'part', id);
  }
  for (const [at, answer] of told.answers.entries()) {
    for (const [list, entries] of [
      ['options', answer.options],
      ['by', answer.by],
    ] as const) {
      for (const [number, entry] of entries.entries()) {
        const path = `answers[${at}].${list}[${number}]`;
        if (entry.part !== undefined && !parts.has(entry.part)) yield unknown(`${path}.part`, 'part', entry.part);
        if (entry.joint !== undefined && !joints.has(entry.joint)) yield unknown(`${path}.joint`, 'joint', entry.joint);
      }
    }
  }
  const photos = new Set(told.photos.map(({ id }) => id));
  for (const [at, seen] of told.seen.entries()) {
    if (!photos.has(seen.photo)) yield unknown(`seen[${at}].photo`, 'photograph', seen.photo);
    if (seen.part !== undefined && !parts.has(seen.part)) yield unknown(`seen[${at}].part`, 'part', seen.part);
  }
}

function* ofLine(line: Line, path: string, parts: ReadonlySet<string>): Generator<Problem> {
  if (line.on !== undefined && !parts.has(line.on)) yield unknown(`${path}.on`, 'part', line.on);
  if ('part' in line && line.part !== undefined && !parts.has(line.part))
    yield unknown(`${path}.part`, 'part', line.part);
  if (line.kind !== 'release') return;
  for (const id of line.holds ?? []) if (!parts.has(id)) yield unknown(`${path}.holds`, 'part', id);
  if (line.to !== undefined && !parts.has(line.to)) yield unknown(`${path}.to`, 'part', line.to);
}

/** The first time that a joint is released, what it is and holds has to be told. */
function* ofNewJoint({ type, holds, face }: Extract<Line, { kind: 'release' }>, path: string): Generator<Problem> {
  const cure = 'Say it with the first release of the joint.';
  if (type === undefined) yield wrong(`${path}.type`, 'Nothing says what kind of joint this is.', cure);
  if (holds === undefined) yield wrong(`${path}.holds`, 'Nothing says what this joint holds.', cure);
  if (face === undefined) yield wrong(`${path}.face`, 'Nothing says on which face this joint is.', cure);
}

function unknown(path: string, kind: string, id: string): Problem {
  return wrong(path, `There is no ${kind} “${id}” in what was told.`, `Name one that is told, or tell it.`);
}
