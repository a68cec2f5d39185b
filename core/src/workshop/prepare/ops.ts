import { type DeviceMap, jointById, partById } from '../../model/device-map/index.ts';
import { type Op, procedureOp } from '../../planner/drafts/index.ts';
import type { ChargeNeed } from './charge.ts';

/** Hands-on seconds, guesses. */
const AGREE_S = 60;
const READ_CHARGE_S = 20;
const PREPARE_S = 60;
const TAPE_S = 90;

export function agreeOp(count: number): Op {
  return procedureOp({
    name: 'agree',
    stage: 'prepare',
    seconds: AGREE_S,
    why: `The owner is told ${count === 1 ? 'one thing' : `${count} things`} and agrees, before anything is opened.`,
    whyNotEarlier: 'Nothing has to come before it.',
  });
}

export function chargeOp(need: ChargeNeed): Op {
  return procedureOp({
    name: need.way,
    stage: 'prepare',
    seconds: READ_CHARGE_S,
    ...(need.seconds ? { wait_s: need.seconds } : {}),
    why: need.why,
    whyNotEarlier: 'Before it is switched off.',
  });
}

export function prepareOp(): Op {
  return procedureOp({
    name: 'prepare',
    stage: 'prepare',
    seconds: PREPARE_S,
    why: 'So that nobody is hurt and nothing is missing half way.',
    whyNotEarlier: 'Nothing has to come before it.',
  });
}

export function tapeOp(part: string, at?: Pick<Op, 'joint' | 'face' | 'stage'>): Op {
  return procedureOp({
    name: 'tape',
    of: part,
    part,
    stage: 'prepare',
    seconds: TAPE_S,
    why: 'It is cracked: overlapping clear tape over the whole face holds the splinters and gives a cup a surface.',
    whyNotEarlier: 'After it is switched off and trays are out.',
    ...at,
  });
}

/** Tape goes on where the film over the glass would: before anything is heated, cut or opened. */
export function withTape(map: DeviceMap, ops: readonly Op[], tapes: readonly Op[]): Op[] {
  if (tapes.length === 0) return [...ops];
  const isOpening = (op: Op) =>
    op.name === 'film' ||
    op.name === 'heat' ||
    op.kind === 'open' ||
    (op.kind === 'release' && jointById(map, op.joint)?.type === 'bond') ||
    (op.kind === 'lift' && !partById(map, op.part)?.removeFirst);
  const at = ops.findIndex(isOpening);
  return at < 0 ? [...ops] : ops.toSpliced(at, 0, ...tapes);
}
