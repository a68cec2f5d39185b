import { type BenchEvent, type DecisionAbout, type DoneStep, EVENT_DATA } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { functionName, opLine, opTitle, thingName, capital, duration } from '@nibrel/core/planner/words';
import type { Target } from '@nibrel/core/planner/search';
import { spaced } from '../app/format.ts';
import { apartLine } from './apart-words.ts';
import { closingLine } from './closing-words.ts';
import { foundLine } from './found-words.ts';
import { deskLine, intakeLine } from './intake-words.ts';
import { screwLine } from './screw-words.ts';
import { openingLine } from './opening-words.ts';

/** A step in the words of the bench; by its bare name where the map has it no more. */
export function stepWords(map: DeviceMap, step: DoneStep): string {
  const op = { ...step, ...(step.new ? { isNew: true } : {}) } as unknown as Op;
  const isMapped =
    (step.joint === undefined || map.joints.some(({ id }) => id === step.joint)) &&
    (step.part === undefined || map.parts.some(({ id }) => id === step.part));
  return isMapped && (step.kind === 'procedure' || step.joint !== undefined || step.part !== undefined)
    ? opLine(map, op)
    : capital(opTitle(map, op));
}

function targetWords(map: DeviceMap, target: Target): string {
  if ('full' in target) return 'full strip';
  if ('reach' in target) return `reach ${thingName(map, target.reach)}`;
  return 'remove' in target ? `take out ${thingName(map, target.remove)}` : `replace ${thingName(map, target.replace)}`;
}

const DECIDED: Readonly<Partial<Record<DecisionAbout, string>>> = {
  'missing-screw': ', missing screw left out',
  'left-open': ', left open',
};

const STAGE_WORDS = {
  intake: ', as it came in',
  trial: ', in a trial',
  before: ', before sealing',
  after: '',
} as const;

/** One event as a line of the record. */
export function eventLine(map: DeviceMap, event: BenchEvent): string {
  if (!Object.hasOwn(EVENT_DATA, event.type)) return `“${event.type}”, not understood by this version: kept as it is`;
  if (event.unreadable) return `Damaged on the disk, and left out: “${event.type}”`;
  switch (event.type) {
    case 'did': {
      const { steps, anyway } = event.data;
      const said = steps.map((step) => stepWords(map, step)).join('; ');
      return anyway === undefined ? said : `${said}. Against the rules, it happened anyway: ${anyway}`;
    }
    case 'note':
      return `Note: ${event.data.text}`;
    case 'screw':
      return `Screw ${event.data.point} of ${thingName(map, event.data.joint)} on the mat`;
    case 'click':
      return `${capital(thingName(map, event.data.joint))}: ${event.data.heard === 'clicked' ? 'it clicked' : 'nobody is sure that it clicked'}`;
    case 'timer':
      return `Clock started, ${duration(event.data.seconds)}`;
    case 'undo':
      return 'Undone: the entry before';
    case 'trouble':
      return `Trouble, ${spaced(event.data.kind)}${event.data.joint ? `, ${thingName(map, event.data.joint)}` : ''}${event.data.part ? `, ${thingName(map, event.data.part)}` : ''}${event.data.text ? `: ${event.data.text}` : ''}`;
    case 'found':
      return `Screw ${event.data.point} of ${thingName(map, event.data.joint)} found again`;
    case 'decision':
      return `Decision${DECIDED[event.data.about] ?? ''}: ${event.data.text}`;
    case 'test': {
      const name = functionName(map, event.data.function);
      const simulated = event.data.simulated ? ' (simulated)' : '';
      return `${name}: ${event.data.result.replace('-', ' ')}${STAGE_WORDS[event.data.stage]}${simulated}`;
    }
    case 'targets':
      return `Job changed: ${event.data.targets.map((each) => targetWords(map, each)).join(', ') || 'close it up'}`;
    case 'pause':
      return 'Paused';
    case 'resume':
      return 'Went on';
    case 'stop':
      return `Stopped, ${event.data.reason}${event.data.text ? `: ${event.data.text}` : ''}`;
    case 'clear':
      return `Cleared by the lead${event.data.lead ? `, ${event.data.lead}` : ''}. ${event.data.text}`;
    case 'end':
      return `Ended by ${event.data.lead ?? event.by}. ${event.data.text}`;
    case 'finish':
      return 'Finished';
    default:
      return (
        deskLine(map, event) ??
        openingLine(map, event) ??
        foundLine(map, event) ??
        screwLine(map, event) ??
        closingLine(map, event) ??
        apartLine(map, event) ??
        intakeLine(map, event)
      );
  }
}
