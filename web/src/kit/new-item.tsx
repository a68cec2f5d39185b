import { mapQuery, mapsQuery } from '../app/queries.ts';
import { supplyOf } from '@nibrel/core/after/kit';
import { renewalOf, type DeviceMap } from '@nibrel/core/model/device-map';
import type { StockUnit } from '@nibrel/core/workshop/shop';
import { partName, thingName } from '@nibrel/core/planner/words';
import { useQuery } from '@tanstack/react-query';
import Joi from 'joi';
import { useState } from 'react';

import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { figure, note } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';
import type { ShopSaid } from './tell-shop.ts';

const amountFrom0 = figure('A number from 0', { least: 0 });
const schema = Joi.object<{ name: string; quantity: number; lowAt: number }>({
  name: note(120),
  quantity: amountFrom0,
  lowAt: amountFrom0,
});

interface Kind {
  readonly key: string;
  readonly name: string;
  readonly unit: StockUnit;
}

const OF_ALL: readonly Kind[] = [
  { key: 'tape', name: 'Cut tape', unit: 'mm' },
  { key: 'clear-tape', name: 'Clear tape', unit: 'mm' },
  { key: 'liquid-adhesive', name: 'Liquid adhesive', unit: 'drop' },
  ...[1, 2, 5, 10].map((kg): Kind => ({ key: `weight:${kg}`, name: `Weight, ${kg} kg`, unit: 'piece' })),
  { key: 'thread-locker', name: 'Thread locker', unit: 'drop' },
];

/** What a device's repairs use up that is for this device alone: seals, single-use parts and screws, spares. */
function kindsOf(map: DeviceMap): Kind[] {
  const seals = map.joints.flatMap((each) =>
    each.type === 'bond' && renewalOf(each) === 'precut'
      ? [
          {
            ...supplyOf(map, { what: 'precut-seal', joint: each.id, text: '' }),
            name: `${map.name}: ${thingName(map, each.id)}`,
          },
        ]
      : [],
  );
  const parts = map.parts.flatMap((each) => {
    const what = each.reuse === 'single-use' ? 'single-use-part' : each.reuse === 'often-breaks' ? 'spare' : null;
    return what
      ? [{ ...supplyOf(map, { what, part: each.id, text: '' }), name: `${map.name}: ${partName(map, each.id)}` }]
      : [];
  });
  const screws = map.fasteners.flatMap((each) =>
    each.singleUse
      ? [
          {
            ...supplyOf(map, { what: 'single-use-screw', fastener: each.id, text: '' }),
            name: `${map.name}: screw ${each.id}`,
          },
        ]
      : [],
  );
  return [...seals, ...parts, ...screws];
}

/** A new item on the shelf: what it is for decides how it is counted down. */
export function NewItem({ onItem }: { onItem(said: readonly ShopSaid[]): void }) {
  const maps = useQuery(mapsQuery);
  const [mapId, setMap] = useState('');
  const map = useQuery(mapQuery(mapId || undefined)).data;
  const kinds = mapId && map ? kindsOf(map) : OF_ALL;
  const [key, setKey] = useState('');
  const { field, sent, empty } = useFields(schema, { name: '', quantity: '', lowAt: '' });
  const kind = kinds.find((each) => each.key === key) ?? kinds[0];
  const add = sent(({ name, quantity, lowAt }) => {
    if (!kind) return;
    const id = crypto.randomUUID();
    onItem([
      { type: 'item', data: { id, key: kind.key, unit: kind.unit, name: name || kind.name, lowAt } },
      { type: 'counted', data: { item: id, quantity } },
    ]);
    empty();
  });
  return (
    <details className="mt-4">
      <summary className="min-h-12 cursor-pointer py-3 text-body">Something new on the shelf</summary>
      <form onSubmit={add} className="grid items-end gap-3 md:grid-cols-2">
        <SelectField
          id="item-for"
          label="For"
          value={mapId}
          options={[
            { value: '', label: 'every device' },
            ...(maps.data ?? []).map((each) => ({ value: each.id, label: each.name })),
          ]}
          onChange={setMap}
        />
        <SelectField
          id="item-kind"
          label="What"
          value={kind?.key ?? ''}
          options={kinds.map((each) => ({ value: each.key, label: each.name }))}
          onChange={setKey}
        />
        <Field label="Called" {...field('name')} placeholder={kind?.name ?? ''} maxLength={120} />
        <div className="grid grid-cols-2 gap-3">
          <Field label={`Here now, ${kind?.unit ?? ''}`} inputMode="decimal" {...field('quantity')} />
          <Field label="Low at" inputMode="decimal" {...field('lowAt')} />
        </div>
        <Button type="submit" disabled={!kind}>
          Put it on the shelf
        </Button>
      </form>
    </details>
  );
}
