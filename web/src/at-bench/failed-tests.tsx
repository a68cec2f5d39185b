import Joi from 'joi';
import { type FailedTest, failedTogether, type SuspectCost } from '@nibrel/core/bench/in-hand';
import type { EventData } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Target } from '@nibrel/core/planner/search';
import { capital, functionName, jointWords, partName, plural, thingName } from '@nibrel/core/planner/words';
import { duration } from '../app/format.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface FailedTestsProps {
  readonly map: DeviceMap;
  readonly failed: readonly FailedTest[];
  /** others are still to be tried: it is said, and waits */
  readonly isBrief: boolean;
  /** when it is tried again: after the device was closed, before its seal, or in the middle of the work */
  readonly stage: 'after' | 'before' | 'trial';
  onTest(test: EventData['test']): void;
  onDecision(decision: EventData['decision']): void;
  /** get at these again, opened for it where it is closed */
  onReopen(targets: readonly Target[]): void;
}

/**
 * What failed keeps the device from being closed: what to press again, what that costs, and the two ways on. Several
 * failures have one list of what may be the cause.
 */
export function FailedTests({ map, failed, isBrief, stage, onTest, onDecision, onReopen }: FailedTestsProps) {
  const isClosed = stage === 'after';
  const isShared = failed.length > 1;
  return (
    <>
      {isShared && !isBrief && <Shared map={map} failed={failed} isClosed={isClosed} onReopen={onReopen} />}
      {failed.map((each) => (
        <FailedFunction
          key={each.function}
          map={map}
          failed={isShared ? { ...each, suspects: [] } : each}
          isShared={isShared}
          isBrief={isBrief}
          stage={stage}
          onTest={onTest}
          onDecision={onDecision}
          onReopen={onReopen}
        />
      ))}
    </>
  );
}

type SharedProps = Pick<FailedTestsProps, 'map' | 'failed' | 'onReopen'> & { readonly isClosed: boolean };

/** One list for all that failed, and one press that gets at every cause that it takes. */
function Shared({ map, failed, isClosed, onReopen }: SharedProps) {
  const { functions, suspects, again } = failedTogether(failed);
  if (suspects.length === 0) return null;
  const names = functions.map((id) => functionName(map, id)).join(' and ');
  const explained = (ids: readonly string[]) => ids.map((id) => functionName(map, id)).join(', ');
  return (
    <section aria-label="What may explain it" className="flex flex-col gap-3 border-b border-hair px-6 py-4">
      <h2 className="text-lead font-bold">{names} fail: what may explain it</h2>
      <ol className="flex flex-col gap-1 text-body">
        {suspects.map((suspect) => (
          <li key={suspect.joint ?? suspect.part} className="border-b border-hair py-1">
            {suspectLine(map, suspect)} <span className="text-quiet">Explains {explained(suspect.explains)}.</span>
          </li>
        ))}
      </ol>
      <Button weight="loud" onClick={() => onReopen(again.map(targetOf))}>
        {isClosed
          ? 'Open it again for this'
          : again.length > 1
            ? `Press home again: ${again.map(({ joint, part }) => suspectName(map, joint, part)).join(', ')}`
            : wayTo(again[0]!, isClosed)}
      </Button>
    </section>
  );
}

interface Why {
  readonly text: string;
}
const schema = Joi.object<Why>({ text: words('Why it is closed all the same', 2000) });

type FailedFunctionProps = Omit<FailedTestsProps, 'failed'> & {
  readonly failed: FailedTest;
  /** its suspects are listed with those of others */
  readonly isShared: boolean;
};

function FailedFunction({ map, failed, isShared, isBrief, stage, onTest, onDecision, onReopen }: FailedFunctionProps) {
  const { field, sent } = useFields(schema, { text: '' });
  const name = functionName(map, failed.function);
  const isClosed = stage === 'after';
  const [first] = failed.suspects;
  const advice = first && !isClosed ? adviceOn(map, first) : null;
  const title = <h2 className="text-lead font-bold text-care">{name} fails: not to be closed</h2>;
  if (isBrief) {
    return (
      <section aria-label={`${name} fails`} className="border-b-4 border-care px-6 py-3">
        {title}
        <p className="text-body text-quiet">Try the rest; then it is pressed again, or decided.</p>
      </section>
    );
  }
  return (
    <section aria-label={`${name} fails`} className="flex flex-col gap-3 border-b-4 border-care px-6 py-4">
      {title}
      {advice && (
        <>
          <p className="text-lead font-bold">{advice}</p>
          <Button weight="loud" onClick={() => onReopen([targetOf(first!)])}>
            {wayTo(first!, isClosed)}
          </Button>
        </>
      )}
      {failed.suspects.length > 0 ? (
        <ol className="flex flex-col gap-1 text-body">
          {failed.suspects.map((suspect) => (
            <li
              key={suspect.joint ?? suspect.part}
              className="flex items-center justify-between gap-4 border-b border-hair py-1"
            >
              <span>{suspectLine(map, suspect)}</span>
              {(isClosed || (suspect.p >= WORTH_REACHING && !(advice && suspect === first))) && (
                <Button onClick={() => onReopen([targetOf(suspect)])} className="shrink-0">
                  {wayTo(suspect, isClosed)}
                </Button>
              )}
            </li>
          ))}
        </ol>
      ) : (
        !isShared && <p className="text-body">Nothing that serves it was touched in this job.</p>
      )}
      {failed.tryNext && (
        <p className="text-body text-quiet">
          Trying {map.functions.find(({ id }) => id === failed.tryNext!.function)?.name} tells most next (
          {failed.tryNext.bits.toFixed(1)} bits).
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => onTest({ function: failed.function, result: 'works', stage })}>
          Tried again: works
        </Button>
        <Button onClick={() => onTest({ function: failed.function, result: 'fails', stage })}>Still fails</Button>
      </div>
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={sent(({ text }) => onDecision({ about: 'failed-test', function: failed.function, text }))}
      >
        <Field label="Close it all the same, since" {...field('text')} maxLength={2000} />
        <Button type="submit">That is decided</Button>
      </form>
    </section>
  );
}

/** What leads to a suspect, on its button. */
function wayTo({ joint }: SuspectCost, isClosed: boolean): string {
  if (isClosed) return 'Open it again for this';
  return joint === undefined ? 'Get at it again' : 'Press it home again';
}

function targetOf({ joint, part }: SuspectCost): Target {
  return joint === undefined ? { remove: part! } : { reach: joint };
}

/** A plug by what it serves: a part may have several. */
function suspectName(map: DeviceMap, joint: string | undefined, part: string | undefined): string {
  if (joint === undefined) return partName(map, part!);
  const { title } = jointWords(map, joint).on;
  return title.startsWith(PLUG_IN) ? title.slice(PLUG_IN.length) : thingName(map, joint);
}

const PLUG_IN = 'Plug in the ';

function percent(p: number): string {
  return p < 0.01 ? 'under 1 %' : `${Math.round(p * 100)} %`;
}

/** *Press the touch flex again before it is closed: 1 min, 81 %.* Null where it can't be got at, or is hardly to blame. */
function adviceOn(map: DeviceMap, { joint, part, now_s, p }: SuspectCost): string | null {
  if (now_s === null || p < WORTH_SAYING) return null;
  const doing = joint === undefined ? 'Look at the' : 'Press the';
  return `${doing} ${suspectName(map, joint, part)} again before it is closed: ${duration(now_s)}, ${percent(p)}.`;
}

/** What is less likely is not offered while it still stands open (guess). */
const WORTH_REACHING = 0.05;

/** Less likely is no advice (guess). */
const WORTH_SAYING = 0.2;

/** *Display plug: undone or pressed 2 times. Again: 1 min now, 14 min and 1 seal after closing.* */
function suspectLine(
  map: DeviceMap,
  { joint, part, touched, troubled, unsure, p, now_s, afterSealing_s, seals }: SuspectCost,
): string {
  const now = now_s === null ? [] : [`${duration(now_s)} now`];
  const seal = seals > 0 ? ` and ${plural(seals, 'seal')}` : '';
  const later = afterSealing_s === null ? [] : [`${duration(afterSealing_s)}${seal} once it is closed`];
  const times = `touched ${plural(touched, 'time')}${troubled ? ', with trouble' : ''}${unsure ? ', nobody was sure that it clicked' : ''}`;
  const cost = [...now, ...later].join(', ');
  return `${capital(suspectName(map, joint, part))}, ${percent(p)}: ${times}.${cost ? ` Again: ${cost}.` : ''}`;
}
