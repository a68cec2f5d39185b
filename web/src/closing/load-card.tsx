import { pressOf } from '@nibrel/core/physics/bonding';
import { type BondJoint, type DeviceMap, partById } from '@nibrel/core/model/device-map';
import { type JobState, renewalNow } from '@nibrel/core/job/state';
import { loadFrom, type Weight } from '@nibrel/core/fitting/load';
import { plural } from '@nibrel/core/planner/words';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { shopQuery } from '../app/queries.ts';

interface LoadCardProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly bond: BondJoint;
}

/** Which weights on the shelf make up the load of a press, and where they stand so that it is centred. */
export function LoadCard({ map, state, bond }: LoadCardProps) {
  const stock = useQuery(shopQuery).data?.stock;
  const isGlued = renewalNow(map, state, bond) === 'liquid';
  const asked = bond.style === 'perimeter' ? (pressOf(bond)?.mass_kg ?? bond.close?.mass_kg) : bond.close?.mass_kg;
  const { w, h } = partById(map, bond.holds[0])!.box;
  const weights = useMemo(() => weightsOf(stock ?? []), [stock]);
  const load = useMemo(
    () => (asked && weights.length > 0 ? loadFrom({ mass_kg: asked, weights, over: { w, h } }) : null),
    [asked, weights, w, h],
  );
  if (isGlued) {
    return (
      <p className="text-body">
        Clamps or bands all round, foam beneath, no tighter than the glass bears: glue needs hold and time, not weight.
      </p>
    );
  }
  if (!asked || weights.length === 0) return null;
  if (!load) {
    return (
      <p className="text-body font-bold text-care">
        The weights on the shelf are not enough for {Math.round(asked)} kg: clamp it, or press it along the edges.
      </p>
    );
  }
  const heaviest = Math.max(...load.placed.map(({ mass_kg }) => mass_kg));
  return (
    <section aria-label="Load" className="flex items-center gap-4 text-body">
      <svg
        role="img"
        aria-label={`${plural(load.placed.length, 'weight')} on a board over the part, as drawn`}
        viewBox={`-2 -2 ${w + 4} ${h + 4}`}
        className="h-36 shrink-0"
      >
        <rect width={w} height={h} rx={Math.min(w, h) / 12} fill="none" stroke="var(--ink)" strokeWidth={w / 80} />
        {load.placed.map(({ weight, mass_kg, x, y }) => (
          <g key={`${weight} ${x} ${y}`}>
            <circle
              cx={x}
              cy={y}
              r={(Math.min(w, h) / 5) * Math.sqrt(mass_kg / heaviest)}
              fill="var(--mat)"
              stroke="var(--ink)"
              strokeWidth={w / 100}
            />
            <text
              x={x}
              y={y}
              textAnchor="middle"
              dominantBaseline="central"
              fontSize={Math.min(w, h) / 6}
              fill="var(--ink)"
            >
              {mass_kg}
            </text>
          </g>
        ))}
      </svg>
      <p>
        <b>{Number(load.mass_kg.toFixed(2))} kg</b> on a board and foam:{' '}
        {counted(load.placed.map(({ mass_kg }) => mass_kg))}
        {load.off_mm >= 1
          ? `. Its middle lies ${Math.round(load.off_mm)} mm off: as drawn is best`
          : ', centred as drawn'}
        .
      </p>
    </section>
  );
}

/** Weights are things on the shelf whose key says how heavy one is: *weight:5*. */
function weightsOf(stock: readonly { readonly id: string; readonly key: string; readonly left: number }[]): Weight[] {
  return stock.flatMap(({ id, key, left }) => {
    const mass_kg = key.startsWith('weight:') ? Number(key.slice('weight:'.length)) : Number.NaN;
    return mass_kg > 0 && left > 0 ? [{ id, mass_kg, count: Math.floor(left) }] : [];
  });
}

/** *2 of 10 kg, 1 of 5 kg* */
function counted(masses: readonly number[]): string {
  const kinds = [...new Set(masses)];
  return kinds.map((mass) => `${masses.filter((each) => each === mass).length} of ${mass} kg`).join(', ');
}
