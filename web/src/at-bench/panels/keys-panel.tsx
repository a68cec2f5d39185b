import { Key } from '../../ui/button.tsx';
import { HandsFree } from '../../job/panels/hands-free.tsx';
import { Panel } from '../../ui/panel.tsx';
import type { Closing } from '../../ui/form.ts';

const BENCH_KEYS = [
  ['Space', 'do the step; at a test: it works'],
  ['PageDown', 'do the step (pedal)'],
  ['PageUp', 'look back (pedal)'],
  ['← →', 'look back, look ahead'],
  ['Home', 'back to the step in hand'],
  ['Enter', 'when looking ahead: all done until here'],
  ['U', 'undo the last thing done'],
  ['L', 'lay one screw'],
  ['W', 'end the wait now; take the source off early'],
  ['H', 'at a cut: heat again'],
  ['D', 'at a cut: it drags here'],
  [
    '2, 3, 5',
    'at a test: fails, not tried, the rest works; at a close look: 2 failed; at a plug: 2 not sure that it clicked',
  ],
  ['6', 'once it is closed: flush all round, or where it stands off'],
  ['K', 'before a bond is closed: keep it, renew it, glue it'],
  ['F', 'flip the drawing'],
  ['B', 'why, at length'],
  ['M', 'missing screws: found, left out, new'],
  ['V, Y', 'a picture kept with this step; one of the mat'],
  ['Z', 'may it be left now: what turns bad, and when'],
  ['S', 'screws: what comes out, mix-ups, one in doubt, spilled'],
  ['J', 'try it now: alive for a trial, and dead again'],
  ['Q', 'why will it not come out: what still holds it'],
  ['T', 'trouble'],
  ['E', 'something else was done'],
  ['O', 'not as mapped: missing, another, one more'],
  ['N', 'note'],
  ['G', 'change the job'],
  ['C', 'close up without replacing'],
  ['P', 'pause, go on'],
  ['X', 'stop now'],
  ['A', 'as it came in: faults, marks, photographs'],
  ['I', 'who is at the bench'],
  ['R', 'record'],
  ['?', 'these keys'],
] as const;

export function KeysPanel({ open, onClose }: Closing) {
  return (
    <Panel title="Keys" open={open} onClose={onClose}>
      <div className="mb-5 grid grid-cols-[9rem_1fr] items-center gap-x-4 gap-y-2 sm:grid-cols-[9rem_1fr_9rem_1fr]">
        <HandsFree />
      </div>
      <dl className="grid gap-x-8 sm:grid-cols-2">
        {BENCH_KEYS.map(([key, what]) => (
          <div key={key} className="flex items-center gap-4 border-b border-hair py-1.5">
            <dt className="w-24 shrink-0">
              <Key name={key} />
            </dt>
            <dd className="text-body">{what}</dd>
          </div>
        ))}
      </dl>
    </Panel>
  );
}
