import { type DeviceMap, partById } from '@nibrel/core/model/device-map';
import { partName } from '@nibrel/core/planner/words';
import { pinHoles } from '@nibrel/core/workshop/prepare';
import { PinHoleMarks } from '../drawing/pin-hole-marks.tsx';

/** Where the tray pin goes in, and every hole where it must not. */
export function PinHoles({ map }: { readonly map: DeviceMap }) {
  const lock = map.joints.find((each) => each.type === 'clip' && each.eject);
  const tray = partById(map, lock?.holds[0]);
  const holes = pinHoles(map, tray?.id ?? '');
  if (!tray || holes.right.length + holes.wrong.length + holes.unmapped.length === 0) return null;
  const { width, height, corner } = map.outline;
  return (
    <section aria-label="Pin holes" className="text-body">
      <h2 className="text-note text-quiet">Tray pin</h2>
      <div className="grid grid-cols-[8.5rem_1fr] gap-4">
        <svg aria-hidden="true" viewBox={`-9 -9 ${width + 18} ${height + 18}`} className="w-full">
          <rect width={width} height={height} rx={corner} fill="var(--mat)" stroke="var(--ink)" strokeWidth="0.8" />
          <PinHoleMarks map={map} side="front" tray={tray.id} />
        </svg>
        <ul className="flex flex-col gap-2">
          {holes.right.map((each) => (
            <li key={each.id} className="text-done">
              ✓ Pin in here: {each.part ? partName(map, each.part) : 'tray'}
            </li>
          ))}
          {holes.wrong.map((each) => (
            <li key={each.id} className={each.channel === 'straight' ? 'font-bold text-now' : ''}>
              ✕ Microphone: {each.harm}
            </li>
          ))}
          {holes.unmapped.map((each) => (
            <li key={each.id} className="text-quiet">
              {each.name}: its hole is not in the map
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}
