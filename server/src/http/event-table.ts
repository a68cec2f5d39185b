import { type EventRow, EVENTS } from '@nibrel/core/job/events';

const COLUMNS = ['type', 'tells', 'stopped', 'finished', 'handed over', 'ended', 'undo', 'by'] as const;

/** Every type of event of a repair with what is true of it, as a page: docs/events.md. */
export function eventTable(): string {
  const rows = Object.entries<EventRow>(EVENTS).map(([type, row]) => [
    `\`${type}\``,
    row.tells,
    typeof row.inStop === 'string' ? 'where what it takes back may be' : mark(row.inStop),
    mark(row.finished),
    row.handedOver === 'by-lead' ? 'by a lead' : mark(row.handedOver),
    mark(row.ended),
    UNDO[row.undo],
    BY[row.saidBy],
  ]);
  const line = (cells: readonly string[]) => `| ${cells.join(' | ')} |`;
  const table = [line(COLUMNS), line(COLUMNS.map(() => '---')), ...rows.map(line)];
  return `# Events of a repair

Made by \`npm run schemas\` from the rows in \`core/src/job/events/event-row.ts\` and its neighbours, which judge, fold and undo read. Their data
are in [events.schema.json](events.schema.json); what is judged besides is in [http.md](http.md#what-is-judged).

_stopped_, _finished_, _handed over_, _ended_: may it be told of a repair that is so? _undo_: what an undo does with it. _by_: who may
say it.

${table.join('\n')}
`;
}

function mark(may: boolean): string {
  return may ? 'yes' : '';
}

const UNDO: Readonly<Record<EventRow['undo'], string>> = {
  'takes-back': 'takes it back',
  'passes-over': 'passes over it',
  'stops-at': 'stops at it',
};

const BY: Readonly<Record<EventRow['saidBy'], string>> = {
  anyone: 'anybody',
  lead: 'a lead',
  'lead-once-begun': 'a lead, once begun or stopped',
};
