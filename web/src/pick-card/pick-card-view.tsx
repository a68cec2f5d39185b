import { pickCard } from '@nibrel/core/planner/cut';
import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import { thingName } from '@nibrel/core/planner/words';
import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { spaced } from '../app/format.ts';
import { mapQuery } from '../app/queries.ts';
import { Trouble } from '../ui/caution.tsx';
import { SelectField } from '../ui/select-field.tsx';

/** A page to print to scale: depth marks for the picks, and the outline with its edges and what lies behind them. */
export function PickCardView() {
  const { map: id, joint } = useParams();
  const [search] = useSearchParams();
  // a repair keeps the map that it was taken in with
  const revision = Number(search.get('revision')) || undefined;
  const map = useQuery(mapQuery(id, revision));
  if (map.isError) {
    return (
      <main className="p-8">
        <Trouble title="There is no card to print">
          <p>{map.error.message}</p>
        </Trouble>
      </main>
    );
  }
  if (!map.data) return <main className="p-8 text-far text-quiet">Fetching the device</main>;
  const bonds = cutBonds(map.data);
  const bond = bonds.find((each) => each.id === joint) ?? bonds[0];
  return bond ? <Card map={map.data} revision={revision} bonds={bonds} bond={bond} /> : <None map={map.data} />;
}

function cutBonds(map: DeviceMap): BondJoint[] {
  return map.joints.filter((each): each is BondJoint => each.type === 'bond' && pickCard(map, each) !== null);
}

function None({ map }: { readonly map: DeviceMap }) {
  return (
    <main className="max-w-xl px-6 py-5">
      <h1 className="text-far font-bold">{map.name} has nothing to cut</h1>
      <p className="mt-1 text-body text-quiet">
        No bond of its map says how deep its edges are cut. Give its segments a depth, then print.
      </p>
    </main>
  );
}

interface CardProps {
  readonly map: DeviceMap;
  /** the newest where it is left out */
  readonly revision: number | undefined;
  readonly bonds: readonly BondJoint[];
  readonly bond: BondJoint;
}

function Card({ map, revision, bonds, bond }: CardProps) {
  const navigate = useNavigate();
  const { marks, toward } = pickCard(map, bond)!;
  const of = revision === undefined ? '' : `?revision=${revision}`;
  const address = `/api/v1/device-maps/${encodeURIComponent(map.id)}/pick-card/${encodeURIComponent(bond.id)}`;
  return (
    <main className="grid grow gap-x-10 gap-y-5 px-6 py-5 md:grid-cols-[19rem_minmax(0,1fr)]">
      <div className="flex flex-col gap-4">
        <h1 className="text-far leading-tight font-bold">Pick card, {map.name}</h1>
        {bonds.length > 1 && (
          <SelectField
            id="card-bond"
            label="Bond"
            value={bond.id}
            options={bonds.map(({ id }) => ({ value: id, label: thingName(map, id) }))}
            onChange={(next) => void navigate(`/pick-card/${map.id}/${next}${of}`)}
          />
        )}
        <a
          href={`${address}.pdf${of}`}
          target="_blank"
          rel="noreferrer"
          className="inline-flex min-h-18 items-center border border-ink bg-ink px-4 text-lead font-semibold text-paper hover:border-now hover:bg-now"
        >
          Page to print, PDF
        </a>
        <a
          href={`${address}.svg${of}`}
          target="_blank"
          rel="noreferrer"
          className="inline-flex min-h-12 items-center self-start text-body underline decoration-hair underline-offset-4"
        >
          The same as a drawing, SVG
        </a>
        <p className="text-body">
          Print at 100 %, not fitted to the page. Lay a rule on the bar: it has to be 50 mm. If it is not, the marks are
          not either.
        </p>
        <dl className="border-t border-ink text-body">
          {marks.map(({ depth, edges }) => (
            <div key={depth} className="grid grid-cols-[4.5rem_minmax(0,1fr)] border-b border-hair py-1">
              <dt className="font-bold">{depth} mm</dt>
              <dd>{edges.map(spaced).join(', ')}</dd>
            </div>
          ))}
        </dl>
        {toward && <p className="text-body text-quiet">It opens toward the {toward}: that edge is cut last.</p>}
      </div>
      <img
        src={`${address}.svg${of}`}
        alt={`The card: ${marks.map(({ depth, edges }) => `${depth} mm at ${edges.join(', ')}`).join('; ')}`}
        className="h-[calc(100dvh-6.5rem)] min-h-120 w-auto border border-hair bg-white"
      />
    </main>
  );
}
