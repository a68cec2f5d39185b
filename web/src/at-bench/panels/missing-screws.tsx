import Joi from 'joi';
import type { EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { lostScrew } from '@nibrel/core/screws/mix-ups';
import { clock } from '../../app/format.ts';
import { heldName } from '@nibrel/core/planner/words';
import { keyOf, type Screw, screwLetters } from '@nibrel/core/screws/screws';
import { Button } from '../../ui/button.tsx';
import { Field } from '../../ui/field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { ScrewMark } from '../../ui/screw-mark.tsx';
import { words } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';

const schema = Joi.object<{ text: string }>({ text: words('Who decides, and why') });

interface MissingScrewsProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly open: boolean;
  onClose(): void;
  onFound(screw: EventData['found']): void;
  onDecision(text: string): void;
  onOrder(text: string): void;
}

interface LostProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly screw: Screw;
  onFound(): void;
  onOrder(text: string): void;
}

/** What is lost, and what can be done about it: found again, or left out by a decision that is recorded. */
export function MissingScrewsPanel({ map, state, open, onClose, onFound, onDecision, onOrder }: MissingScrewsProps) {
  const { field, sent } = useFields(schema, { text: '' });
  const { lost } = state.ledger;
  return (
    <Panel
      title={lost.length === 0 ? 'No screw is missing' : 'Missing screws'}
      said={
        lost.length === 0
          ? 'Every screw that came out is on the mat or back in.'
          : 'A loose screw under a cell or a board can short it. Look at magnets and under the tools first.'
      }
      open={open}
      onClose={onClose}
    >
      {lost.length > 0 && (
        <div className="flex flex-col gap-4">
          <ul>
            {lost.map((screw) => (
              <Lost
                key={keyOf(screw)}
                map={map}
                state={state}
                screw={screw}
                onFound={() => onFound({ joint: screw.joint, point: screw.point })}
                onOrder={onOrder}
              />
            ))}
          </ul>
          <form
            className="flex flex-col gap-3"
            onSubmit={sent(({ text }) => {
              onDecision(text);
              onClose();
            })}
          >
            <Field label="Decision to go on without, and why" {...field('text')} maxLength={1000} />
            <Button type="submit">Record the decision</Button>
          </form>
        </div>
      )}
    </Panel>
  );
}

/** One that is lost: where it was seen last, what it risks, what else fits its hole, and how it is ordered. */
function Lost({ map, state, screw, onFound, onOrder }: LostProps) {
  const letters = screwLetters(map);
  const lost = lostScrew(map, screw, state.limits);
  const order = lost && `To order: a screw ${lost.order}, for ${placeOf(map, screw)}`;
  const isOrdered = state.inForce.some((event) => event.type === 'note' && event.data.text === order);
  return (
    <li className="border-b border-hair py-2">
      <div className="flex items-center justify-between gap-4">
        <span className="flex items-center gap-4">
          <ScrewMark mark={letters.get(screw.fastener)!} />
          {placeOf(map, screw)}
        </span>
        <Button onClick={onFound}>Found it</Button>
      </div>
      <p className="text-body text-quiet">{lastSeen(state, screw)}</p>
      {lost && (
        <>
          <p className="text-body">{lost.risk}.</p>
          <p className="text-body">
            {lost.substitutes.length === 0
              ? 'No other screw of this device fits its hole safely.'
              : `Fits its hole as well: ${lost.substitutes.map((id) => letters.get(id)!.letter).join(', ')}.`}
          </p>
          <div className="mt-1 flex flex-wrap items-center gap-3">
            <span className="text-body">{lost.order}</span>
            {order && (
              <Button disabled={isOrdered} onClick={() => onOrder(order)}>
                {isOrdered ? 'Noted to order' : 'Note it to order'}
              </Button>
            )}
          </div>
        </>
      )}
    </li>
  );
}

/** *On the mat since 14:05, Ines; spilled at 14:40* */
function lastSeen({ inForce }: JobState, { joint, point }: Screw): string {
  const out = inForce.findLast(
    (event) =>
      (event.type === 'screw' && event.data.joint === joint && event.data.point === point) ||
      (event.type === 'did' && event.data.steps.some((step) => step.kind === 'release' && step.joint === joint)),
  );
  const spill = inForce.findLast(({ type }) => type === 'spill');
  const seen = out ? `Laid on the mat at ${clock(out.at)} by ${out.by}` : 'Not seen on the mat';
  return spill && (!out || spill.at > out.at) ? `${seen}; spilled after that` : seen;
}

function placeOf(map: DeviceMap, screw: Screw): string {
  return `${heldName(map, screw.joint)}, ${screw.point}`;
}
