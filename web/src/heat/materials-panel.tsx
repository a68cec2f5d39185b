import Joi from 'joi';
import type { Material } from '@nibrel/core/physics/heat';
import { useState } from 'react';
import { useTellShop } from '../kit/tell-shop.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import type { Closing } from '../ui/form.ts';
import { Panel } from '../ui/panel.tsx';
import { NotTold } from '../kit/not-told.tsx';
import { figure, words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface MaterialsPanelProps extends Closing {
  readonly materials: readonly Material[];
}

const FIGURES = [
  { key: 'k', label: 'Conducts, W/m·K' },
  { key: 'rho', label: 'Density, kg/m³' },
  { key: 'cp', label: 'Heat capacity, J/kg·K' },
] as const;

const overNought = figure('A number over 0', { over: 0 });
const schema = Joi.object<Omit<Material, 'kInPlane'>>({
  id: words('What it is called', 200),
  k: overNought,
  rho: overNought,
  cp: overNought,
  source: words('Where the figures come from', 200),
});

/** The table of materials: everybody's figures, and the workshop's own in their place. */
export function MaterialsPanel({ materials, open, onClose }: MaterialsPanelProps) {
  const [edited, setEdited] = useState<Material | 'new' | null>(null);
  return (
    <Panel
      title="Materials"
      said="Figures that every foresight is computed from. Replace one by what you know better; say where it comes from."
      open={open}
      onClose={onClose}
    >
      {edited ? (
        <MaterialForm material={edited === 'new' ? null : edited} onDone={() => setEdited(null)} />
      ) : (
        <>
          <table className="w-full text-left text-body">
            <thead className="border-b border-ink text-note text-quiet">
              <tr>
                <th className="py-1 font-normal">Material</th>
                {['k, W/m·K', 'ρ, kg/m³', 'cp, J/kg·K'].map((each) => (
                  <th key={each} className="pl-4 text-right font-normal">
                    {each}
                  </th>
                ))}
                <th className="pl-5 font-normal">Where from</th>
                <th>
                  <span className="sr-only">Change</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {materials.map((each) => (
                <tr key={each.id} className="border-b border-hair">
                  <td>{each.id}</td>
                  <td className="text-right">{each.k}</td>
                  <td className="text-right">{each.rho}</td>
                  <td className="text-right">{each.cp}</td>
                  <td className="pl-5 text-note text-quiet">{each.source}</td>
                  <td className="text-right">
                    <Button weight="quiet" onClick={() => setEdited(each)} aria-label={`Change ${each.id}`}>
                      change
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Button className="mt-4" onClick={() => setEdited('new')}>
            One more
          </Button>
        </>
      )}
    </Panel>
  );
}

function MaterialForm({ material, onDone }: { readonly material: Material | null; onDone(): void }) {
  const tell = useTellShop();
  const { field, sent } = useFields(schema, {
    id: material?.id ?? '',
    k: String(material?.k ?? ''),
    rho: String(material?.rho ?? ''),
    cp: String(material?.cp ?? ''),
    source: '',
  });
  const keep = sent((own) => {
    const kInPlane = material?.kInPlane;
    tell.mutate({ type: 'material', data: kInPlane === undefined ? own : { ...own, kInPlane } }, { onSuccess: onDone });
  });
  return (
    <form onSubmit={keep} className="flex flex-col gap-4">
      <NotTold error={tell.error} />
      <Field label="Material" {...field('id')} readOnly={material !== null} />
      <div className="grid grid-cols-3 gap-4">
        {FIGURES.map(({ key, label }) => (
          <Field key={key} label={label} inputMode="decimal" {...field(key)} />
        ))}
      </div>
      <Field label="Where from" hint="A book, a data sheet, measured here" {...field('source')} maxLength={200} />
      <div className="flex gap-3">
        <Button weight="loud" type="submit" keyName="Enter" disabled={tell.isPending}>
          Keep it
        </Button>
        <Button onClick={onDone}>Back to the table</Button>
      </div>
    </form>
  );
}
