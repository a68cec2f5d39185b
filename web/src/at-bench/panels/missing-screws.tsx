import Joi from 'joi';
import type { EventData, JobState } from '@nibrel/core/job';
import type { DeviceMap } from '@nibrel/core/device-map';
import { heldName } from '@nibrel/core/words';
import { keyOf, type Screw, screwLetters } from '@nibrel/core/screws';
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
}

/** What is lost, and what can be done about it: found again, or left out by a decision that is recorded. */
export function MissingScrewsPanel({ map, state, open, onClose, onFound, onDecision }: MissingScrewsProps) {
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
              <li key={keyOf(screw)} className="flex items-center justify-between gap-4 border-b border-hair py-2">
                <span className="flex items-center gap-4">
                  <ScrewMark mark={screwLetters(map).get(screw.fastener)!} />
                  {placeOf(map, screw)}
                </span>
                <Button onClick={() => onFound({ joint: screw.joint, point: screw.point })}>Found it</Button>
              </li>
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

function placeOf(map: DeviceMap, screw: Screw): string {
  return `${heldName(map, screw.joint)}, ${screw.point}`;
}
