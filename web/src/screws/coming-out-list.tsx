import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { comingOut } from '@nibrel/core/screws/mix-ups';
import { screwLetters } from '@nibrel/core/screws/screws';
import { bitMark, capital, plural } from '@nibrel/core/planner/words';
import { DriveMark, ScrewMark } from '../ui/screw-mark.tsx';

interface ComingOutListProps {
  readonly map: DeviceMap;
  readonly strip: readonly Op[];
  readonly said: string;
}

/** What comes out where and how many, before the first move. */
export function ComingOutList({ map, strip, said }: ComingOutListProps) {
  const letters = screwLetters(map);
  const joints = comingOut(map, strip);
  const out = joints.reduce(
    (sum, { kinds }) => sum + kinds.reduce((more, each) => more + (each.isCaptive ? 0 : each.count), 0),
    0,
  );
  return (
    <section aria-label="What comes out">
      <h2 className="text-far font-bold">{plural(out, 'screw')} will come out</h2>
      <p className="text-body text-quiet">{said}. Turns are counted from how deep each sits: about.</p>
      <ol className="mt-3 border-t border-ink">
        {joints.map(({ joint, name, face, tool, kinds, inOrder, notes }) => (
          <li
            key={joint}
            className="grid gap-x-6 border-b border-hair py-2 md:grid-cols-[minmax(11rem,1fr)_minmax(20rem,2fr)]"
          >
            <div>
              <p className="text-lead leading-tight font-bold">{name}</p>
              <p className="flex items-center gap-2 text-body text-quiet">
                {tool && <DriveMark drive={tool} size={24} />}
                {tool ? capital(bitMark(tool)) : ''}
                {face === 'edge' ? ' · at the edge' : ` · ${face} up`}
              </p>
            </div>
            <div>
              {kinds.map(({ fastener, count, isCaptive, turns }) => (
                <p key={fastener} className="flex flex-wrap items-center gap-x-4 text-body">
                  <ScrewMark mark={letters.get(fastener)!} />
                  <span>
                    × {count}
                    {isCaptive ? ', only loosened' : ''}
                  </span>
                  <span className="text-quiet">
                    {letters.get(fastener)!.length_mm} mm{turns === null ? '' : `, about ${plural(turns, 'turn')}`}
                  </span>
                </p>
              ))}
              {inOrder.length > 0 && <p className="text-body">In this order: {inOrder.join(', ')}</p>}
              {notes.map((each) => (
                <p key={each} className="text-body text-quiet">
                  {capital(each)}
                </p>
              ))}
            </div>
          </li>
        ))}
      </ol>
      {joints.length === 0 && <p className="text-body text-quiet">Nothing is left to take out.</p>}
    </section>
  );
}
