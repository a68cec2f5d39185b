import { bondToClose, type ClosingChoice } from '@nibrel/core/bench/in-hand';
import { supplyOf } from '@nibrel/core/after/kit';
import { type BondClosing, type EventData } from '@nibrel/core/job/events';
import { closingNow, type JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { thingName, duration } from '@nibrel/core/planner/words';
import { useQuery } from '@tanstack/react-query';
import { mapKey } from '../../app/map-key.ts';
import { shopQuery } from '../../app/queries.ts';
import { amount } from '../../kit/amount.ts';
import { Button } from '../../ui/button.tsx';
import type { Closing } from '../../ui/form.ts';
import { Panel } from '../../ui/panel.tsx';
import { computeLater } from '../../workers/compute.ts';
import type { Computed } from '../../workers/compute.worker.ts';

const WAYS: Readonly<Record<BondClosing, string>> = {
  reuse: 'Keep the old one',
  renew: 'Renew it',
  glue: 'Glue it',
};

interface ClosingPanelProps extends Closing {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly op: Op | undefined;
  onClosing(closing: EventData['closing']): void;
}

/** How a bond is closed is decided on sight: what each way takes, what is on the shelf for it, what is said of water. */
export function ClosingPanel({ map, state, op, open, onClose, onClosing }: ClosingPanelProps) {
  const bond = bondToClose(map, op);
  const stock = useQuery(shopQuery).data?.stock ?? [];
  const choices = useQuery({
    queryKey: ['closings', mapKey(map), state.job.id, state.events.length, bond?.id],
    enabled: open && bond !== null,
    queryFn: async (): Promise<Computed<ClosingChoice[]>> =>
      computeLater().closings(map, state.job, state.events, bond!),
  });
  if (!bond) return null;
  const found = choices.data && 'value' in choices.data ? choices.data.value : null;
  const least = found ? Math.min(...found.map((each) => each.hands_s + each.wait_s)) : 0;
  const chosen = closingNow(map, state, bond);
  const choose = (way: BondClosing) => {
    onClosing({ joint: bond.id, way, text: '' });
    onClose();
  };
  return (
    <Panel
      title="How it is closed"
      said={`${thingName(map, bond.id)}. Look at it: what still sticks all round may stay; else it is renewed or glued.`}
      open={open}
      onClose={onClose}
    >
      {!found && (
        <p className="text-lead text-quiet">
          {choices.data && 'problem' in choices.data ? choices.data.problem : 'Comparing'}
        </p>
      )}
      <ul className="flex flex-col">
        {found?.map(({ way, hands_s, wait_s, uses, water }) => {
          const more = Math.round(hands_s + wait_s - least);
          const supplies = uses.map((each) => supplyOf(map, each));
          return (
            <li key={way} className="flex flex-col gap-1 border-b border-hair py-3">
              <Button aria-pressed={way === chosen} onClick={() => choose(way)}>
                {WAYS[way]}
                {way === chosen && <span className="font-normal">, as planned</span>}
              </Button>
              <p className="text-body text-quiet">
                {more < 30 ? 'The shortest.' : `${duration(more)} more, with its waits.`}{' '}
                {supplies.map((each) => {
                  const left = stock.find(({ key }) => key === each.key)?.left;
                  const there = left === undefined ? 'never counted' : `${amount(left, each.unit)} on the shelf`;
                  return `Takes ${amount(each.quantity, each.unit)}, ${there}.`;
                })}{' '}
                {water}
              </p>
            </li>
          );
        })}
      </ul>
    </Panel>
  );
}
