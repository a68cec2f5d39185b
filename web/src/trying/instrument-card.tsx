import type { DeviceMap } from '@nibrel/core/model/device-map';
import { COLOUR_FIELDS, type Instrument, instrumentFor } from '@nibrel/core/bench/trying';
import { partName, placeWords } from '@nibrel/core/planner/words';
import qrcode from 'qrcode';
import { useMemo } from 'react';
import { DEVICE_PAGE, onDevice, searchOf } from './instrument-address.ts';

interface InstrumentCardProps {
  readonly map: DeviceMap;
  /** id of the function that is tried */
  readonly tried: string;
}

/** How a function is tried on this very device, and the page that shows it there; nothing where its words say all. */
export function InstrumentCard({ map, tried }: InstrumentCardProps) {
  const instrument = useMemo(() => instrumentFor(map, tried), [map, tried]);
  if (!instrument) return null;
  const page = onDevice(instrument);
  const search = page && searchOf(page);
  return (
    <div className="flex flex-col gap-1 border-l-4 border-hair pl-3 text-body">
      <How map={map} instrument={instrument} />
      {search && <OnTheDevice search={search} />}
    </div>
  );
}

function How({ map, instrument }: { readonly map: DeviceMap; readonly instrument: Instrument }) {
  switch (instrument.kind) {
    case 'colour-fields':
      return (
        <ul aria-label="Colour fields" className="grid grid-cols-2 gap-x-4 text-note">
          {COLOUR_FIELDS.map(({ name, colour, shows }) => (
            <li key={name} className="flex items-center gap-2">
              <svg aria-hidden="true" className="h-3.5 w-5 shrink-0 border border-ink">
                <rect width="100%" height="100%" fill={colour} />
              </svg>
              <b>{name}</b> <span className="text-quiet">{shows}</span>
            </li>
          ))}
        </ul>
      );
    case 'touch-grid': {
      const { columns, rows } = instrument;
      return (
        <p>
          {columns} × {rows} fields, as wide as a finger: draw over every one, the rims too. What stays empty does not
          answer.
        </p>
      );
    }
    case 'tone':
      return (
        <p>
          Tones from {instrument.hertz[0]} to {instrument.hertz.at(-1)} Hz at the{' '}
          {placeWords(map, instrument.at, 'front')}: no buzz, no rattle, none missing.
        </p>
      );
    case 'buttons':
      return (
        <ul aria-label="Keys">
          {instrument.buttons.map(({ part, at }) => (
            <li key={part}>
              {partName(map, part)}, at the {placeWords(map, at, 'front')}: each key ten times, a click every time.
            </li>
          ))}
        </ul>
      );
    case 'camera':
      return <p>Near, far, and a white wall: sharp in both, no spot, no haze.</p>;
    case 'microphone':
      return (
        <p>
          Speak to the {placeWords(map, instrument.at, 'front')}: the level must rise; its own recorder plays it back
          clear.
        </p>
      );
    case 'vibration':
      return <p>Three short buzzes in the hand: even, without a rattle.</p>;
  }
}

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** A code to open it with the device's own camera, where the workshop's server can be reached from it. */
function OnTheDevice({ search }: { readonly search: string }) {
  const address = `${location.origin}${DEVICE_PAGE}?${search}`;
  const isHere = LOOPBACK.has(location.hostname);
  return (
    <div className="flex items-center gap-3">
      {!isHere && <Code address={address} />}
      <a href={address} target="_blank" rel="noreferrer" className="inline-flex min-h-12 items-center underline">
        {isHere ? 'Show it on this screen' : 'Open it on the device: read the code, or show it here'}
      </a>
    </div>
  );
}

/** A QR code (ISO/IEC 18004). */
function Code({ address }: { readonly address: string }) {
  const { size, data } = qrcode.create(address, { errorCorrectionLevel: 'M' }).modules;
  const squares = Array.from(data).flatMap((isDark, at) =>
    isDark ? [`M${at % size} ${Math.floor(at / size)}h1v1h-1z`] : [],
  );
  return (
    <svg
      role="img"
      aria-label="Code of the page for the device"
      viewBox={`-4 -4 ${size + 8} ${size + 8}`}
      className="size-28"
    >
      <rect x={-4} y={-4} width={size + 8} height={size + 8} fill="white" />
      <path d={squares.join('')} fill="black" />
    </svg>
  );
}
