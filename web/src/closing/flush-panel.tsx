import type { DeviceMap, Part } from '@nibrel/core/model/device-map';
import type { EventData } from '@nibrel/core/job/events';
import { fitRim, rimPlaces } from '@nibrel/core/fitting/rim';
import { partName, placeWords, rimWords } from '@nibrel/core/planner/words';
import { useState } from 'react';
import { decimal } from '../app/format.ts';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { onSide, type Side } from '@nibrel/core/drawn/places';
import { useMm } from '../drawing/scale.ts';
import { Button } from '../ui/button.tsx';
import { Caution } from '../ui/caution.tsx';
import type { Closing } from '../ui/form.ts';
import { Panel } from '../ui/panel.tsx';

/** What a thumb feels and nobody has measured (guess). */
const FELT_MM = 0.3;

interface FlushPanelProps extends Closing {
  readonly map: DeviceMap;
  /** that closes the device and was just closed; null where none was */
  readonly part: Part | null;
  onFlush(flush: EventData['flush']): Promise<boolean>;
}

/** A thumb round the rim: where it stands off is pressed on the drawing, or measured; what that is and what lies below is said. */
export function FlushPanel({ map, part, open, onClose, onFlush }: FlushPanelProps) {
  return (
    <Panel
      title={part ? `${partName(map, part.id)}: flush all round?` : 'Nothing is closed yet'}
      said="Run a thumb round the rim. Press the places where it stands off, or type how much, in mm."
      open={open}
      onClose={onClose}
    >
      {part && <Rim key={part.id} map={map} part={part} onFlush={onFlush} onClose={onClose} />}
    </Panel>
  );
}

type RimProps = Pick<FlushPanelProps, 'map' | 'onFlush' | 'onClose'> & { readonly part: Part };

function Rim({ map, part, onFlush, onClose }: RimProps) {
  const places = rimPlaces(part);
  const [typed, setTyped] = useState<readonly string[]>(places.map(() => ''));
  const steps = typed.map((each) => (each === '' ? 0 : decimal(each)));
  const isTyped = steps.every((each) => each !== null && Math.abs(each) <= 20);
  const points = places.map((place, at) => ({ ...place, step_mm: steps[at] ?? 0 }));
  const fit = isTyped && steps.some((each) => each !== 0) ? fitRim({ points }) : null;
  const side: Side = part.face === 'back' ? 'back' : 'front';
  const set = (at: number, text: string) => setTyped(typed.map((each, index) => (index === at ? text : each)));
  const send = async (sent: EventData['flush']['points']) => {
    if (await onFlush({ part: part.id, points: sent })) onClose();
  };
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-[minmax(0,1fr)_18rem]">
      <div className="h-80">
        <DeviceDrawing map={map} side={side} label={`Rim of ${partName(map, part.id)}`}>
          {places.map(({ x, y }, at) => (
            <Place
              key={`${x} ${y}`}
              x={onSide(map, side, x)}
              y={y}
              name={`Stands off at the ${placeWords(map, { x, y }, part.face)}`}
              isOff={typed[at] !== ''}
              onPress={() => set(at, typed[at] ? '' : String(FELT_MM))}
            />
          ))}
        </DeviceDrawing>
      </div>
      <div className="flex flex-col gap-1">
        {places.map(({ x, y }, at) => {
          const where = placeWords(map, { x, y }, part.face);
          return (
            <label key={`${x} ${y}`} className="flex items-center justify-between gap-3 text-body">
              {where}
              <span>
                <input
                  aria-label={`Step at the ${where}, mm`}
                  inputMode="decimal"
                  autoComplete="off"
                  className="min-h-10 w-20 border border-ink bg-sheet px-2 text-right"
                  value={typed[at]}
                  maxLength={8}
                  onChange={(event) => set(at, event.target.value)}
                />{' '}
                mm
              </span>
            </label>
          );
        })}
      </div>
      <div className="flex flex-col gap-3 sm:col-span-2">
        {!isTyped && (
          <p className="text-body text-now">A step is a number of millimetres, as 0.3; below the frame with a minus.</p>
        )}
        {fit && fit.kind !== 'flush' && (
          <>
            <p className="text-lead">{rimWords(map, part.id, fit)}</p>
            <Caution>
              Lift it again and look there. Never press on: a panel that is forced over a bent rim, a clip or a flex
              cracks now or in a week.
            </Caution>
          </>
        )}
        <div className="flex flex-wrap gap-2">
          <Button weight="loud" onClick={() => void send([])}>
            Flush all round
          </Button>
          <Button disabled={!fit} onClick={() => void send(points)}>
            It stands off: record it
          </Button>
        </div>
      </div>
    </div>
  );
}

/** What is pressed is at least so large, px across; what is seen of it is smaller. */
const FINGER_PX = 48;
const DOT_PX = 20;

interface PlaceProps {
  readonly x: number;
  readonly y: number;
  readonly name: string;
  readonly isOff: boolean;
  onPress(): void;
}

function Place({ x, y, name, isOff, onPress }: PlaceProps) {
  const mm = useMm();
  return (
    <g role="button" aria-label={name} className="cursor-pointer" onClick={onPress}>
      <circle cx={x} cy={y} r={mm(FINGER_PX / 2)} fill="transparent" />
      <circle
        cx={x}
        cy={y}
        r={mm(DOT_PX / 2)}
        fill={isOff ? 'var(--now)' : 'var(--sheet)'}
        stroke="var(--ink)"
        strokeWidth={mm(1.5)}
      />
    </g>
  );
}
