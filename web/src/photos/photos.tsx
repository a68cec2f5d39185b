import type { EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import { MOST_PHOTO_BYTES } from '@nibrel/core/model/photos';
import { plural } from '@nibrel/core/planner/words';
import { type ChangeEvent, useState } from 'react';
import { photoUrl } from '../app/client.ts';
import { clock } from '../app/format.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Panel } from '../ui/panel.tsx';
import { Overlay } from './overlay.tsx';
import { storedPhoto } from './store-photo.ts';

interface PhotosProps {
  readonly state: JobState;
  onPhoto?(photo: EventData['photo']): Promise<boolean>;
  onRetract?(id: string): void;
}

/** A job's photographs, small and in a row; those out of sight cost nothing. One that is pressed is shown large. */
export function Photos({ state, onPhoto, onRetract }: PhotosProps) {
  const [large, setLarge] = useState<string | null>(null);
  const [isOver, setOver] = useState(false);
  const job = state.job.id;
  const photo = state.photos.find((each) => each.id === large);
  return (
    <div className="flex flex-col gap-2">
      {onPhoto && <AddPhotos job={job} onPhoto={onPhoto} />}
      {state.photos.length > 0 && (
        <ul aria-label="Photographs" className="grid max-h-72 grid-cols-3 gap-1 overflow-y-auto">
          {state.photos.map((each, index) => (
            <li key={each.id} className="in-sight-only aspect-[4/3]">
              <button type="button" onClick={() => setLarge(each.id)} className="block h-full w-full">
                <img
                  src={photoUrl(job, each.thumb)}
                  alt={each.text ?? `Photograph ${index + 1}`}
                  loading="lazy"
                  decoding="async"
                  className="h-full w-full object-cover"
                />
              </button>
            </li>
          ))}
        </ul>
      )}
      {state.photos.length > 1 && (
        <Button className="self-start" onClick={() => setOver(true)}>
          Then and now
        </Button>
      )}
      {isOver && <Overlay job={job} photos={state.photos} onClose={() => setOver(false)} />}
      <Panel
        title={photo?.text ?? 'Photograph'}
        said={photo && `${photo.by}, ${clock(photo.at)}`}
        open={photo !== undefined}
        onClose={() => setLarge(null)}
      >
        {photo && (
          <>
            <img
              src={photoUrl(job, photo.shown)}
              alt={photo.text ?? 'Photograph'}
              width={photo.width}
              height={photo.height}
              className="max-h-[60dvh] w-full object-contain"
            />
            <div className="mt-3 flex gap-2">
              {photo.original && (
                <a
                  href={photoUrl(job, photo.original)}
                  target="_blank"
                  rel="noreferrer"
                  className="inline-flex min-h-12 items-center border border-ink px-4 font-semibold"
                >
                  As it was taken
                </a>
              )}
              {onRetract && (
                <Button
                  onClick={() => {
                    onRetract(photo.id);
                    setLarge(null);
                  }}
                >
                  Take it back
                </Button>
              )}
            </div>
          </>
        )}
      </Panel>
    </div>
  );
}

interface AddPhotosProps {
  readonly job: string;
  onPhoto(photo: EventData['photo']): Promise<boolean>;
}

/** By camera or from files; each is stored before it is said to be. */
function AddPhotos({ job, onPhoto }: AddPhotosProps) {
  const [left, setLeft] = useState(0);
  const [problems, setProblems] = useState<readonly string[]>([]);

  const add = async (event: ChangeEvent<HTMLInputElement>) => {
    const files = [...(event.target.files ?? [])];
    event.target.value = '';
    setProblems([]);
    setLeft(files.length);
    for (const file of files) {
      try {
        await storedPhoto(job, file, onPhoto);
      } catch (error) {
        setProblems((before) => [...before, `${file.name}: ${(error as Error).message}`]);
      }
      setLeft((before) => before - 1);
    }
  };
  return (
    <>
      <div className="flex gap-2">
        <Picker label="Camera" capture onChange={add} />
        <Picker label="Photographs from files" onChange={add} />
      </div>
      <p className="text-note text-quiet">
        JPEG, PNG or WebP. Kept as taken up to {MOST_PHOTO_BYTES / 1024 / 1024} MB, shown smaller. Where and by whom it
        was taken is left out of what is kept.
      </p>
      {left > 0 && <p role="status">Storing, {plural(left, 'photograph')} to go</p>}
      {problems.length > 0 && (
        <Trouble title={problems.length === 1 ? 'Not stored' : `${problems.length} not stored`}>
          {problems.map((each) => (
            <p key={each}>{each}</p>
          ))}
        </Trouble>
      )}
    </>
  );
}

interface PickerProps {
  readonly label: string;
  readonly capture?: boolean;
  onChange(event: ChangeEvent<HTMLInputElement>): void;
}

function Picker({ label, capture = false, onChange }: PickerProps) {
  return (
    <label className="inline-flex min-h-12 cursor-pointer items-center border border-ink bg-sheet px-4 text-body font-semibold focus-within:outline-3 focus-within:outline-now hover:bg-mat">
      {label}
      <input
        type="file"
        accept="image/jpeg,image/png,image/webp"
        multiple={!capture}
        {...(capture ? { capture: 'environment' as const } : {})}
        onChange={onChange}
        className="sr-only"
      />
    </label>
  );
}
