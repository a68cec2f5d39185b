import { bitMark } from '@nibrel/core/planner/words';
import { shopQuery } from '../app/queries.ts';
import type { StockLevel } from '@nibrel/core/workshop/shop';
import { useQuery } from '@tanstack/react-query';
import Joi from 'joi';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Field } from '../ui/field.tsx';
import { figure, words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';
import { amount } from './amount.ts';
import { NewItem } from './new-item.tsx';
import { useTellShop } from './tell-shop.ts';
import { NotTold } from './not-told.tsx';

/** What the workshop owns: tools and bits, and what is used up, counted down by the repairs themselves. */
export function KitView() {
  const shop = useQuery(shopQuery);
  const tell = useTellShop();
  if (shop.isError) {
    return (
      <main className="p-8">
        <Trouble title="The kit can not be fetched">
          <p>{shop.error.message}</p>
        </Trouble>
      </main>
    );
  }
  if (!shop.data) return <main className="p-8 text-far text-quiet">Fetching the kit</main>;
  const stock = shop.data.stock.toSorted((a, b) => Number(b.low) - Number(a.low) || a.name.localeCompare(b.name));
  return (
    <main className="grid grow content-start gap-x-10 gap-y-8 px-6 py-5 lg:grid-cols-[20rem_minmax(0,1fr)]">
      <h1 className="sr-only">Kit</h1>
      <div className="empty:hidden lg:col-span-2">
        <NotTold error={tell.error} />
      </div>
      <Tools
        tools={shop.data.tools}
        gone={shop.data.toolsGone}
        onTool={(name, owned) => tell.mutate({ type: 'tool', data: { name, owned } })}
      />
      <section aria-label="Used up">
        <h2 className="text-far font-bold">On the shelf</h2>
        <p className="text-body text-quiet">
          Counted down by what the repairs lay, tape and fit. A count by hand takes the place of all before it.
        </p>
        <ul className="mt-3 border-t border-ink">
          {stock.map((each) => (
            <Shelf
              key={each.id}
              item={each}
              onCounted={(quantity) => tell.mutate({ type: 'counted', data: { item: each.id, quantity } })}
              onArrived={(quantity) => tell.mutate({ type: 'arrived', data: { item: each.id, quantity } })}
            />
          ))}
        </ul>
        {stock.length === 0 && <p className="py-3 text-lead text-quiet">Nothing was counted yet.</p>}
        <NewItem onItem={(said) => tell.mutate(said)} />
      </section>
    </main>
  );
}

const toolSchema = Joi.object<{ name: string }>({ name: words('What it is called', 100) });
const quantitySchema = Joi.object<{ quantity: number }>({ quantity: figure('A number from 0', { least: 0 }) });

interface ToolsProps {
  readonly tools: readonly string[];
  /** those that were here, and were said not to be */
  readonly gone: readonly string[];
  onTool(name: string, owned: boolean): void;
}

function Tools({ tools, gone, onTool }: ToolsProps) {
  const { field, sent, empty } = useFields(toolSchema, { name: '' });
  const add = sent(({ name }) => {
    onTool(name, true);
    empty();
  });
  return (
    <section aria-label="Tools and bits">
      <h2 className="text-far font-bold">Tools and bits</h2>
      <form onSubmit={add} className="mt-2 flex items-end gap-2">
        <div className="grow">
          <Field label="One more" hint="As the plan calls it: T3, PH000, pick" {...field('name')} maxLength={100} />
        </div>
        <Button type="submit" className="mb-6">
          Here
        </Button>
      </form>
      <ul className="border-t border-ink">
        {[...tools, ...gone].toSorted().map((each) => {
          const isHere = !gone.includes(each);
          return (
            <li key={each} className="flex items-center justify-between border-b border-hair">
              <span className={`text-body ${isHere ? '' : 'text-now'}`}>
                {bitMark(each)}
                {bitMark(each) !== each && <span className="text-quiet">, {each}</span>}
                {!isHere && <strong> not here</strong>}
              </span>
              <Button
                weight="quiet"
                onClick={() => onTool(each, !isHere)}
                aria-label={isHere ? `${each} is gone` : `${each} is here`}
              >
                {isHere ? 'gone' : 'It is here'}
              </Button>
            </li>
          );
        })}
      </ul>
      {tools.length + gone.length === 0 && (
        <p className="py-2 text-body text-quiet">No tool was named yet: every plan says that all are missing.</p>
      )}
    </section>
  );
}

interface ShelfProps {
  readonly item: StockLevel;
  onCounted(quantity: number): void;
  onArrived(quantity: number): void;
}

function Shelf({ item, onCounted, onArrived }: ShelfProps) {
  const { field, sent, empty } = useFields(quantitySchema, { quantity: '' });
  const { name, unit, left, low, lowAt } = item;
  const take = (act: (quantity: number) => void) =>
    sent(({ quantity }) => {
      act(quantity);
      empty();
    });
  const full = Math.max(left, lowAt * 3, 1);
  return (
    <li className="grid items-center gap-x-6 gap-y-1 border-b border-hair py-2 md:grid-cols-[15rem_1fr_auto]">
      <div>
        <p className="text-body font-bold">{name}</p>
        <p className={`text-note ${low ? 'font-bold text-now' : 'text-quiet'}`}>
          {left < 0
            ? `${amount(-left, unit)} more used than counted: count it`
            : low
              ? `low, ${amount(lowAt, unit)} is the mark`
              : `low at ${amount(lowAt, unit)}`}
        </p>
      </div>
      <div className="flex items-center gap-3">
        <div role="img" aria-label={`${amount(left, unit)} left`} className="relative h-5 grow border border-ink">
          <div
            className={`h-full ${low ? 'bg-now' : 'bg-done'}`}
            style={{ width: `${Math.max(0, (100 * left) / full)}%` }}
          />
          <div className="absolute inset-y-[-4px] border-l-2 border-ink" style={{ left: `${(100 * lowAt) / full}%` }} />
        </div>
        <span className="w-24 text-right text-lead font-bold">{amount(left, unit)}</span>
      </div>
      <form onSubmit={take(onCounted)} className="flex items-end gap-1">
        <div className="w-24">
          <Field
            id={`count-${item.id}`}
            bare
            placeholder={unit}
            label={`${name}, ${unit}`}
            inputMode="decimal"
            {...field('quantity')}
          />
        </div>
        <Button type="submit">Counted</Button>
        <Button onClick={() => void take(onArrived)()}>Arrived</Button>
      </form>
    </li>
  );
}
