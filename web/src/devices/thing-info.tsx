import {
  type BondJoint,
  type DeviceMap,
  fastenerAt,
  type Joint,
  jointById,
  type MapOrigin,
  partById,
} from '@nibrel/core/model/device-map';
import type { Problem } from '@nibrel/core/model/refusal';
import { ProblemShown } from '../ui/problem-shown.tsx';
import {
  bitMark,
  capital,
  jointKind,
  sureness,
  partName,
  thingName,
  plural,
  opLine,
  duration,
} from '@nibrel/core/planner/words';
import type { Plan } from '@nibrel/core/planner/plan';
import { screwLetters } from '@nibrel/core/screws/screws';
import { Link } from 'react-router';
import { Button } from '../ui/button.tsx';
import { ScrewMark } from '../ui/screw-mark.tsx';

interface ThingInfoProps {
  readonly map: DeviceMap;
  readonly selected: string | null;
  readonly way: Plan | null;
  /** what the check says of this map */
  readonly warnings: readonly Problem[];
  /** which step of the way is lit on the drawing */
  readonly lit: number | null;
  onLight(step: number | null): void;
  onSelect(thing: string | null): void;
}

/** Where a bond is warmed and how it is cut. */
function BondLinks({ map, bond }: { readonly map: DeviceMap; readonly bond: BondJoint }) {
  const isCut = bond.segments?.some((each) => each.depth !== undefined);
  const look = 'mr-3 mt-2 inline-flex min-h-12 items-center border border-ink px-4 font-semibold hover:bg-mat';
  return (
    <p>
      {bond.heat && (
        <Link to={`/heat/${map.id}/${bond.id}`} className={look}>
          Heat it
        </Link>
      )}
      {isCut && (
        <Link to={`/pick-card/${map.id}/${bond.id}`} className={look}>
          Pick card
        </Link>
      )}
    </p>
  );
}

/** What holds a part or joint, what it holds, and the way to it. */
export function ThingInfo({ map, selected, way, warnings, lit, onLight, onSelect }: ThingInfoProps) {
  const part = partById(map, selected);
  const joint = jointById(map, selected);
  const heldBy = map.joints.filter((each) => part && each.holds.includes(part.id));
  const holds = map.joints.filter((each) => part && each.to === part.id);
  return (
    <aside
      aria-label="What holds it"
      className="overflow-y-auto border-ink bg-sheet px-6 py-5 lg:h-[calc(100dvh-3.7rem)] lg:border-l"
    >
      <label className="block text-note text-quiet" htmlFor="thing">
        Part or joint
      </label>
      <select
        id="thing"
        className="mb-4 min-h-12 w-full border-b-2 border-ink bg-sheet text-body"
        value={selected ?? ''}
        onChange={(event) => onSelect(event.target.value || null)}
      >
        <option value="">press one on the drawing, or pick it here</option>
        <optgroup label="Parts">
          {map.parts.map((each) => (
            <option key={each.id} value={each.id}>
              {each.name}
            </option>
          ))}
        </optgroup>
        <optgroup label="Joints">
          {map.joints.map((each) => (
            <option key={each.id} value={each.id}>
              {thingName(map, each.id)}
            </option>
          ))}
        </optgroup>
      </select>
      {!part && !joint && <Whole map={map} />}
      <Warnings warnings={warnings.filter((each) => selected === null || thingAt(map, each.path) === selected)} />
      {part && (
        <>
          <h2 className="text-far leading-tight font-bold">{part.name}</h2>
          <p className="text-body text-quiet">
            {part.kind}
            {part.hazards?.length ? ` · ${part.hazards.join(', ')}` : ''}
            {part.reuse && part.reuse !== 'reusable' ? ` · ${part.reuse.replace('-', ' ')}` : ''}
          </p>
          <Ties
            title="Held by"
            joints={heldBy}
            name={(each) => `${jointKind(each)} to ${partName(map, each.to)}`}
            onSelect={onSelect}
          />
          <Ties
            title="Holds"
            joints={holds}
            name={(each) => `${each.holds.map((id) => partName(map, id)).join(' and ')}, ${jointKind(each)}`}
            onSelect={onSelect}
          />
          <Under map={map} thing={part.id} entries={part.under ?? []} onSelect={onSelect} />
          {!part.base && (
            <Link
              to={`/new?map=${map.id}&part=${part.id}`}
              className="mt-4 inline-flex min-h-12 items-center border border-ink px-4 font-semibold hover:bg-mat"
            >
              Replace it
            </Link>
          )}
        </>
      )}
      {joint && (
        <>
          <h2 className="text-far leading-tight font-bold">{thingName(map, joint.id)}</h2>
          <p className="text-body text-quiet">
            {joint.type} on the {joint.face}
          </p>
          {joint.type === 'screw' && <ScrewList map={map} joint={joint} />}
          {joint.type === 'bond' && <BondLinks map={map} bond={joint} />}
          <Ties
            title="Ties"
            joints={[joint]}
            name={(each) => `${each.holds.map((id) => partName(map, id)).join(' and ')} to ${partName(map, each.to)}`}
            onSelect={() => onSelect(joint.holds[0]!)}
          />
          <Under map={map} thing={joint.id} entries={joint.under ?? []} onSelect={onSelect} />
        </>
      )}
      {way && selected && (
        <section aria-label="The way to it" className="mt-5 border-t border-ink pt-3">
          <h3 className="text-note text-quiet">
            The way to it: {plural(way.strip.length, 'operation')}, {duration(way.seconds.strip)} of work. Press one, or
            ↓ and ↑, to see where it is.
          </h3>
          <ol className="text-body">
            {way.strip.map((op, index) => (
              <li
                key={op.id}
                ref={index === lit ? (line) => line?.scrollIntoView({ block: 'nearest' }) : undefined}
                className="border-b border-hair"
              >
                <Button
                  weight="quiet"
                  aria-pressed={index === lit}
                  className={`-ml-4 w-full text-left font-normal ${index === lit ? 'font-bold text-now' : ''}`}
                  onClick={() => onLight(index === lit ? null : index)}
                >
                  {opLine(map, op)}
                </Button>
              </li>
            ))}
          </ol>
        </section>
      )}
    </aside>
  );
}

function Warnings({ warnings }: { readonly warnings: readonly Problem[] }) {
  if (warnings.length === 0) return null;
  return (
    <section aria-label="Warnings" className="mt-4">
      <h3 className="text-note text-quiet">The check warns</h3>
      <ul className="text-body text-care">
        {warnings.map((each) => (
          <li key={each.path + each.message} className="border-b border-hair py-1">
            <ProblemShown {...each} /> <code className="text-note">{each.path}</code>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The part or joint that a path of the check points into. */
function thingAt(map: DeviceMap, path: string): string | undefined {
  const [, list, index] = /^(parts|joints)\[(\d+)\]/.exec(path) ?? [];
  return list === 'parts'
    ? map.parts[Number(index)]?.id
    : list === 'joints'
      ? map.joints[Number(index)]?.id
      : undefined;
}

/** How much of a map that a teardown made is sure, and what nobody has told. */
function Origin({ origin: { guesses, unplaced } }: { readonly origin: MapOrigin }) {
  const held = guesses.filter((each) => each.in);
  const certain = held.filter(({ certainty }) => certainty === 'certain').length;
  return (
    <p className="mt-2 text-body">
      Made by taking it apart: {certain} of {plural(held.length, 'entry', 'entries')} certain, the rest likely.
      {unplaced.length > 0 &&
        ` Nobody said where ${plural(unplaced.length, 'thing')} ${unplaced.length === 1 ? 'lies' : 'lie'}.`}
    </p>
  );
}

function Whole({ map }: { readonly map: DeviceMap }) {
  const letters = screwLetters(map);
  return (
    <>
      <h2 className="text-far font-bold">{map.name}</h2>
      <p className="text-body text-quiet">
        {map.outline.width} × {map.outline.height} × {map.outline.thickness} mm · {plural(map.parts.length, 'part')},{' '}
        {plural(map.joints.length, 'joint')}
      </p>
      {map.origin && <Origin origin={map.origin} />}
      <ul className="mt-3">
        {map.fasteners.map((each) => (
          <li key={each.id} className="flex items-center gap-3 text-body">
            <ScrewMark mark={letters.get(each.id)!} />
            {map.origin?.unmeasured.includes(each.id) ? 'not measured' : `${each.length} mm`}, {bitMark(each.drive)}
          </li>
        ))}
      </ul>
      <a
        href={`/api/v1/device-maps/${map.id}`}
        download={`${map.id}.json`}
        className="mt-4 inline-flex min-h-12 items-center border border-ink px-4 font-semibold hover:bg-mat"
      >
        Export as JSON
      </a>
    </>
  );
}

function ScrewList({ map, joint }: { readonly map: DeviceMap; readonly joint: Joint & { type: 'screw' } }) {
  const letters = screwLetters(map);
  return (
    <ul className="mt-2">
      {joint.points.map((point) => (
        <li key={point.id} className="flex items-center gap-3 text-body">
          <ScrewMark mark={letters.get(fastenerAt(joint, point))!} />
          {letters.get(fastenerAt(joint, point))!.isMeasured
            ? `${point.id}: hole ${point.depth} mm deep over ${point.below}`
            : `${point.id}: not measured`}
        </li>
      ))}
    </ul>
  );
}

interface TiesProps {
  readonly title: string;
  readonly joints: readonly Joint[];
  name(joint: Joint): string;
  onSelect(joint: string): void;
}

function Ties({ title, joints, name, onSelect }: TiesProps) {
  if (joints.length === 0) return null;
  return (
    <section aria-label={title} className="mt-4">
      <h3 className="text-note text-quiet">{title}</h3>
      <ul>
        {joints.map((each) => (
          <li key={each.id} className="border-b border-hair">
            <Button weight="quiet" className="-ml-4 w-full font-normal" onClick={() => onSelect(each.id)}>
              {name(each)}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface UnderProps {
  readonly map: DeviceMap;
  readonly thing: string;
  readonly entries: NonNullable<DeviceMap['parts'][number]['under']>;
  onSelect(thing: string): void;
}

function Under({ map, thing, entries, onSelect }: UnderProps) {
  if (entries.length === 0) return null;
  return (
    <section aria-label="Waits for" className="mt-4">
      <h3 className="text-note text-quiet">Waits for</h3>
      <ul>
        {entries.map((entry) => {
          const id = 'part' in entry ? entry.part : entry.joint;
          const sure = sureness(map, thing, entry);
          return (
            <li key={`${id} ${'until' in entry ? entry.until : ''}`} className="border-b border-hair">
              <Button weight="quiet" className="-ml-4 w-full font-normal" onClick={() => onSelect(id)}>
                {thingName(map, id)}, {'part' in entry ? entry.until : 'released'}
                {entry.note ? `. ${entry.note}` : ''}
              </Button>
              {sure !== null && <p className="pb-2 text-note text-quiet">{capital(sure)}.</p>}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
