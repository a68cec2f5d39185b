import type { JobState } from '@nibrel/core/job/state';
import { type MouseEvent, useState } from 'react';
import { photoUrl } from '../app/client.ts';
import { clock } from '../app/format.ts';
import { Button } from '../ui/button.tsx';
import { Panel } from '../ui/panel.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { Slide } from '../ui/slide.tsx';
import { type Corner, cssOf, viewOf } from '@nibrel/core/model/photos';

type Photos = JobState['photos'];

interface OverlayProps {
  readonly job: string;
  readonly photos: Photos;
  onClose(): void;
}

/** Drawn this wide, px: corners are pointed at and carried over in these. */
const WIDE = 320;

/** Two pictures of the same thing: side by side, then one over the other by four corners that both of them show. */
export function Overlay({ job, photos, onClose }: OverlayProps) {
  const [then, setThen] = useState(photos[0]!.id);
  const [now, setNow] = useState(photos.at(-1)!.id);
  const [corners, setCorners] = useState<readonly [readonly Corner[], readonly Corner[]]>([[], []]);
  const [shine, setShine] = useState(50);
  const both = [then, now].map((id) => photos.find((each) => each.id === id)!) as [Photos[number], Photos[number]];
  const view = viewOf(corners[1], corners[0]);
  const isPointed = corners[0].length === 4 && corners[1].length === 4;
  const options = photos.map((each, at) => ({
    value: each.id,
    label: `${at + 1}, ${clock(each.at)}${each.text ? `, ${each.text}` : each.of === 'mat' ? ', the mat' : ''}`,
  }));
  const again = () => setCorners([[], []]);
  const pick = (which: 0 | 1, id: string) => {
    (which === 0 ? setThen : setNow)(id);
    again();
  };
  const point = (which: 0 | 1, corner: Corner) => {
    if (corners[which].length === 4) return;
    const more = [...corners[which], corner];
    setCorners(which === 0 ? [more, corners[1]] : [corners[0], more]);
  };
  return (
    <Panel
      title="Then and now"
      said="Press the same four corners on both, in the same order: they are laid over each other."
      open
      onClose={onClose}
    >
      <div className="grid gap-4 sm:grid-cols-2">
        {([0, 1] as const).map((which) => (
          <div key={which} className="flex flex-col gap-2">
            <SelectField
              id={`overlay-${which}`}
              label={which === 0 ? 'Then' : 'Now'}
              value={both[which].id}
              options={options}
              onChange={(id) => pick(which, id)}
            />
            <Pointed
              src={photoUrl(job, both[which].shown)}
              label={which === 0 ? 'Then' : 'Now'}
              photo={both[which]}
              corners={corners[which]}
              onPoint={(corner) => point(which, corner)}
            />
          </div>
        ))}
      </div>
      <div className="mt-4">
        {!isPointed && (
          <p role="status" className="text-body">
            {corners[0].length} of 4 corners on the first, {corners[1].length} of 4 on the second.
          </p>
        )}
        {isPointed && !view && (
          <p role="status" className="text-body text-now">
            Three of these corners lie on a line. Begin again with corners farther apart.
          </p>
        )}
        {view && (
          <>
            <div
              className="relative overflow-hidden border border-ink"
              style={{ width: WIDE * 1.6, maxWidth: '100%', height: heightOf(both[0]) * 1.6 }}
            >
              <div className="absolute top-0 left-0 origin-top-left scale-160">
                <img src={photoUrl(job, both[0].shown)} alt="Then" width={WIDE} height={heightOf(both[0])} />
                <img
                  src={photoUrl(job, both[1].shown)}
                  alt="Now, over it"
                  width={WIDE}
                  height={heightOf(both[1])}
                  className="absolute top-0 left-0 max-w-none origin-top-left"
                  style={{ transform: cssOf(view), opacity: shine / 100 }}
                />
              </div>
            </div>
            <Slide
              label="How much of now shows"
              said={`${shine} %`}
              value={shine}
              min={0}
              max={100}
              step={5}
              onChange={setShine}
            />
          </>
        )}
        {(corners[0].length > 0 || corners[1].length > 0) && (
          <Button className="mt-2" onClick={again}>
            Point again
          </Button>
        )}
      </div>
    </Panel>
  );
}

function heightOf({ width, height }: Photos[number]): number {
  return (WIDE * height) / width;
}

interface PointedProps {
  readonly src: string;
  readonly label: string;
  readonly photo: Photos[number];
  readonly corners: readonly Corner[];
  onPoint(corner: Corner): void;
}

function Pointed({ src, label, photo, corners, onPoint }: PointedProps) {
  const height = heightOf(photo);
  const pointed = (event: MouseEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    onPoint({
      x: ((event.clientX - box.left) / box.width) * WIDE,
      y: ((event.clientY - box.top) / box.height) * height,
    });
  };
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${height}`}
      role="img"
      aria-label={`${label}, press four corners`}
      className="w-full cursor-crosshair border border-hair"
      onClick={pointed}
    >
      <image href={src} width={WIDE} height={height} preserveAspectRatio="none" />
      {corners.map(({ x, y }, at) => (
        <g key={at} stroke="var(--now)" strokeWidth="2" fill="none">
          <circle cx={x} cy={y} r="9" />
          <path d={`M${x - 13} ${y}h26M${x} ${y - 13}v26`} strokeWidth="1" />
          <text
            x={x + 11}
            y={y - 9}
            fontSize="15"
            fontWeight="700"
            fill="var(--now)"
            stroke="var(--sheet)"
            strokeWidth="3"
            paintOrder="stroke"
          >
            {at + 1}
          </text>
        </g>
      ))}
    </svg>
  );
}
