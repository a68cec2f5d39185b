import type { EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { useState } from 'react';
import { useKeys } from '../app/keys.ts';
import { Button } from '../ui/button.tsx';

type Result = EventData['test']['result'];

const SAID: Readonly<Record<Result, string>> = { works: 'works', fails: 'fails', 'not-tried': 'not tried' };

interface FunctionsTriedProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  onResult(test: EventData['test']): void;
  /** nothing of what is left can be tried, or all of it was and works; one press, and each is recorded */
  onRest(result: Result, functions: readonly string[]): void;
}

/** Every function of the device, tried one after the other: a key each, and the next one is in hand. */
export function FunctionsTried({ map, state, onResult, onRest }: FunctionsTriedProps) {
  const [picked, setPicked] = useState<string | null>(null);
  const results = new Map(
    state.tests.flatMap((each) => (each.stage === 'intake' ? [[each.function, each.result] as const] : [])),
  );
  const current =
    map.functions.find((each) => each.id === picked) ?? map.functions.find((each) => !results.has(each.id));
  const say = (result: Result) => {
    if (!current) return;
    onResult({ function: current.id, result, stage: 'intake' });
    setPicked(null);
  };
  const move = (by: number) => {
    const at = map.functions.findIndex((each) => each.id === current?.id);
    setPicked(map.functions.at((at + by + map.functions.length) % map.functions.length)?.id ?? null);
  };
  const left = map.functions.flatMap(({ id }) => (results.has(id) ? [] : [id]));
  const dead = () => left.length > 0 && onRest('not-tried', left);
  const rest = () => left.length > 0 && onRest('works', left);
  useKeys({
    '4': dead,
    '5': rest,
    ' ': () => say('works'),
    PageDown: () => say('works'),
    '1': () => say('works'),
    '2': () => say('fails'),
    '3': () => say('not-tried'),
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
  });
  return (
    <section aria-label="Functions tried" className="flex min-h-0 flex-col">
      {current ? (
        <div className="bg-now-wash px-5 py-4">
          <h2 className="text-far leading-tight font-bold">{current.name}</h2>
          <p className="min-h-12 text-body text-quiet">{current.how}</p>
          <div className="mt-2 grid grid-cols-[auto_auto_auto] gap-1.5 whitespace-nowrap">
            <Button keyName="1" className="gap-2! px-2.5!" data-step="" onClick={() => say('works')}>
              Works
            </Button>
            <Button keyName="2" className="gap-2! px-2.5!" onClick={() => say('fails')}>
              Fails
            </Button>
            <Button keyName="3" className="gap-2! px-2.5!" onClick={() => say('not-tried')}>
              Not tried
            </Button>
          </div>
          {left.length > 1 && (
            <div className="mt-1.5 grid gap-1.5 whitespace-nowrap">
              <Button keyName="4" className="gap-2! px-2.5!" onClick={dead}>
                Dead: none tried
              </Button>
              <Button keyName="5" className="gap-2! px-2.5!" onClick={rest}>
                The rest works
              </Button>
            </div>
          )}
        </div>
      ) : (
        <p className="bg-done-wash px-6 py-4 text-far leading-tight font-bold text-done">
          {map.functions.length === 0 ? 'The map names no function' : 'Everything was tried'}
        </p>
      )}
      <ul className="min-h-0 grow overflow-y-auto px-6 py-2">
        {map.functions.map(({ id, name }) => (
          <li key={id} className="border-b border-hair">
            <button
              type="button"
              aria-current={id === current?.id}
              onClick={() => setPicked(id)}
              className={`flex min-h-9 w-full items-center justify-between gap-3 text-left text-body pointer-coarse:min-h-12 ${id === current?.id ? 'font-bold text-now' : ''}`}
            >
              <span>{name}</span>
              <Result result={results.get(id)} />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Result({ result }: { readonly result: Result | undefined }) {
  if (!result) return null;
  const look = result === 'fails' ? 'font-bold text-now' : result === 'works' ? 'text-done' : 'text-quiet';
  return <span className={look}>{SAID[result]}</span>;
}
