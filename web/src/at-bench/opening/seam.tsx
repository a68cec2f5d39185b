import { type BondJoint, type DeviceMap, partById } from '@nibrel/core/model/device-map';
import { Caution } from '../../ui/caution.tsx';
import { partName } from '@nibrel/core/planner/words';

interface SeamProps {
  readonly map: DeviceMap;
  readonly bond: BondJoint;
  readonly depth: number;
}

/** A cut through the rim: the pick between the right two parts, as deep as it may go here. Not to scale across. */
export function Seam({ map, bond, depth }: SeamProps) {
  const [a, b] = bond.seam!.between;
  const z = (id: string) => partById(map, id)?.z.top ?? 0;
  // what is nearer to the face that is opened lies on top
  const fromFront = bond.face !== 'back';
  const [upper, lower] = z(a) < z(b) === fromFront ? [a, b] : [b, a];
  const reach = 28 + depth * 9;
  return (
    <>
      <svg
        role="img"
        aria-label={`Seam: the pick goes between ${partName(map, upper)} and ${partName(map, lower)}, ${depth} mm`}
        viewBox="0 0 300 78"
        className="w-full max-w-96"
      >
        <path d="M28 8H296V28H34Q28 28 28 22Z" fill="var(--glass)" stroke="var(--ink)" strokeWidth="1" />
        <path d="M20 40H296V70H26Q20 70 20 64Z" fill="var(--metal)" stroke="var(--ink)" strokeWidth="1" />
        <rect x="34" y="28" width="56" height="12" fill="var(--now-wash)" stroke="var(--quiet)" strokeWidth="0.6" />
        <path d={`M2 31H${reach - 8}L${reach} 34L${reach - 8} 37H2Z`} fill="var(--now)" />
        <path d={`M28 50V46H${reach}V50`} fill="none" stroke="var(--now)" strokeWidth="1.2" />
        <text x={reach + 6} y="51" fontSize="12" fontWeight="700" fill="var(--now)">
          {depth} mm
        </text>
        <text x="150" y="22" fontSize="12" fill="var(--ink)">
          {partName(map, upper)}
        </text>
        <text x="150" y="64" fontSize="12" fill="var(--ink)">
          {partName(map, lower)}
        </text>
      </svg>
      {bond.seam!.not && <Caution>Not {bond.seam!.not}</Caution>}
    </>
  );
}
