import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import { type JobState, renewalNow } from '@nibrel/core/job/state';
import { beadVolume_uL, cutFrom, type Roll, stripsOfBond } from '@nibrel/core/fitting/tape';
import { edgeName, plural } from '@nibrel/core/planner/words';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { shopQuery } from '../app/queries.ts';

interface TapeCutsProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly bond: BondJoint;
}

/** A bead of liquid adhesive is laid about this thick, where the map says nothing of its width (common practice). */
const BEAD_MM = 1;

/** What is cut for a bond that is laid, and from which roll; or how much glue it takes. Nothing for a seal that came cut. */
export function TapeCuts({ map, state, bond }: TapeCutsProps) {
  const stock = useQuery(shopQuery).data?.stock;
  const renewal = renewalNow(map, state, bond);
  const strips = useMemo(() => stripsOfBond(bond), [bond]);
  const rolls = useMemo(() => rollsOf(stock ?? []), [stock]);
  // twelve strips of eight rolls take a twentieth of a second: once
  const cutting = useMemo(() => (renewal === 'tape' ? cutFrom(strips, rolls) : null), [renewal, strips, rolls]);
  if (strips.length === 0) return null;
  const length_mm = strips.reduce((sum, strip) => sum + strip.length_mm, 0);
  if (renewal === 'liquid') {
    const bead_mm = Math.min(bond.width ?? BEAD_MM, BEAD_MM);
    return (
      <p className="text-body">
        A bead of {bead_mm} mm along {length_mm} mm: about {Math.ceil(beadVolume_uL(length_mm, bead_mm))} µl.
      </p>
    );
  }
  if (renewal !== 'tape') return null;
  const nameOf = (id: string) => stock?.find((each) => each.id === id)?.name ?? id;
  return (
    <section aria-label="Tape to cut" className="text-body">
      <p>
        {plural(strips.length, 'strip')}, {length_mm} mm{bond.width ? ` of ${bond.width} mm` : ''}. Between them the
        gaps that were there.
      </p>
      <ul className="border-t border-hair">
        {cutting?.rolls.map(({ roll, strips: cut, left_mm, isWaste }) => (
          <li key={roll} className="border-b border-hair py-1">
            <b>{nameOf(roll)}</b>:{' '}
            {cut
              .map((id) => `${edgeName(bond, id)} ${strips.find((strip) => strip.id === id)!.length_mm} mm`)
              .join(', ')}
            .{' '}
            <span className="text-quiet">
              {Math.round(left_mm)} mm left{isWaste && left_mm > 0 ? ', too short to keep' : ''}
            </span>
          </li>
        )) ??
          strips.map(({ id, length_mm: each }) => (
            <li key={id} className="border-b border-hair py-1">
              {edgeName(bond, id)} {each} mm
            </li>
          ))}
      </ul>
      {!cutting && (
        <p className="font-bold text-care">
          {rolls.length === 0
            ? 'No tape is counted on the shelf.'
            : 'What lies on the shelf is not enough for all of it: count it, or fetch another roll.'}
        </p>
      )}
    </section>
  );
}

/** Rolls are things on the shelf whose key says that they are tape: *tape*, *tape:offcut*. */
function rollsOf(stock: readonly { readonly id: string; readonly key: string; readonly left: number }[]): Roll[] {
  const isTape = (key: string) => key === 'tape' || key.startsWith('tape:');
  return stock.flatMap(({ id, key, left }) => (isTape(key) && left > 0 ? [{ id, length_mm: left }] : []));
}
