import type { Answer } from '@nibrel/core/asking/question';
import { HandsFree } from '../job/panels/hands-free.tsx';
import { Key } from '../ui/button.tsx';
import type { Closing } from '../ui/form.ts';
import { Panel } from '../ui/panel.tsx';
import { keyName } from './answer-bar.tsx';

/** Every key that means something now, from the answers themselves. */
export function KeysSheet({ answers, open, onClose }: Closing & { readonly answers: readonly Answer[] }) {
  return (
    <Panel title="Keys, sounds and speech" open={open} onClose={onClose}>
      <div className="mb-5 grid grid-cols-[9rem_1fr] items-center gap-x-4 gap-y-2 sm:grid-cols-[9rem_1fr_9rem_1fr]">
        <HandsFree />
      </div>
      <dl className="grid gap-x-8 sm:grid-cols-2">
        {answers.map(({ id, key, also, label }) => (
          <div key={id} className="flex items-center gap-4 border-b border-hair py-1.5">
            <dt className="flex w-24 shrink-0 gap-1">
              <Key name={keyName(key)} />
              {also !== undefined && <Key name={keyName(also)} />}
            </dt>
            <dd className="text-body">{label}</dd>
          </div>
        ))}
      </dl>
    </Panel>
  );
}
