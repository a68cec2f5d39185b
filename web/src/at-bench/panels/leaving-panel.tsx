import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Leaving } from '@nibrel/core/bench/in-hand';
import { opLine, plural, duration } from '@nibrel/core/planner/words';
import type { Closing } from '../../ui/form.ts';
import { Panel } from '../../ui/panel.tsx';

interface LeavingPanelProps extends Closing {
  readonly map: DeviceMap;
  readonly leaving: Leaving;
}

/** May it be left now? What turns bad and when, and how far it is to where nothing does. */
export function LeavingPanel({
  map,
  leaving: { bad, mayLeave, next, isStopped, runsOn },
  open,
  onClose,
}: LeavingPanelProps) {
  return (
    <Panel
      title={mayLeave ? 'Safe to leave now' : isStopped ? 'It is not left alone' : 'Do not leave it yet'}
      said={next ? `After ${plural(next.steps, 'step')} it may, in about ${duration(next.seconds)}.` : undefined}
      open={open}
      onClose={onClose}
    >
      {next && (
        <p className="mb-4 text-lead">
          Then it lies safe: <b>{opLine(map, next.after)}</b>
        </p>
      )}
      {isStopped && (
        <p className="mb-4 text-lead">
          It is stopped: somebody watches it, from where it is safe, until the lead has decided.
        </p>
      )}
      {!mayLeave && !next && !isStopped && (
        <p className="mb-4 text-lead">Nothing that is planned makes it safer. Put it right first.</p>
      )}
      {bad.length > 0 && (
        <ul aria-label="What turns bad" className="border-t border-ink text-lead">
          {bad.map(({ text, in_s, isSlight }) => (
            <li key={text} className="flex justify-between gap-4 border-b border-hair py-2">
              <span className={isSlight ? 'text-quiet' : ''}>{text}</span>
              <span className={`shrink-0 ${isSlight ? 'text-quiet' : 'font-bold text-now'}`}>
                {in_s === null ? (isSlight ? 'mind it' : 'at once') : `in ${duration(in_s)}`}
              </span>
            </li>
          ))}
        </ul>
      )}
      {mayLeave && bad.length === 0 && <p className="text-lead">Nothing turns bad while it lies like this.</p>}
      {runsOn.map((each) => (
        <p key={each} className="mt-3 text-body text-quiet">
          {each}, by itself.
        </p>
      ))}
      {!isStopped && (
        <p className="mt-4 text-body text-quiet">
          Whoever leaves it says so: <kbd>P</kbd> pauses the repair. Loose screws go under a lid.
        </p>
      )}
    </Panel>
  );
}
