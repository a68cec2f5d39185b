import type { EventData } from '@nibrel/core/job/events';
import { type ReactNode, useCallback, useEffect, useRef, useState } from 'react';
import { photoUrl } from '../app/client.ts';
import { sound } from '../app/feedback.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Camera } from './camera.ts';
import { storedPhoto } from './store-photo.ts';

type Photo = EventData['photo'];
type About = Pick<Photo, 'step' | 'part' | 'of' | 'text'>;

/** How long what was kept is shown. */
const SHOWN_MS = 6000;

/** A picture in one key, kept with the step in hand, while the page stays as it is. */
export function usePicture(job: string, onPhoto: (photo: Photo) => Promise<boolean>) {
  const camera = useRef<Camera | null>(null);
  const [taking, setTaking] = useState(0);
  const [kept, setKept] = useState<Photo | null>(null);
  const [problem, setProblem] = useState<{ readonly text: string; readonly about: About } | null>(null);
  useEffect(() => () => camera.current?.close(), []);
  useEffect(() => {
    if (!kept) return;
    const timer = setTimeout(() => setKept(null), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [kept]);

  const keep = useCallback(
    async (about: About, file: () => Promise<File> | File) => {
      setTaking((count) => count + 1);
      setProblem(null);
      try {
        setKept(await storedPhoto(job, await file(), onPhoto, about));
        sound('picture');
      } catch (error) {
        setProblem({ text: (error as Error).message, about });
        sound('refused');
      }
      setTaking((count) => count - 1);
    },
    [job, onPhoto],
  );
  const take = useCallback(
    (about: About) => {
      camera.current ??= new Camera();
      const { current } = camera;
      void keep(about, () => current.take());
    },
    [keep],
  );
  const shown: ReactNode = problem ? (
    <Trouble title="No picture">
      <p>{problem.text}</p>
      <div className="mt-2 flex flex-wrap gap-2">
        <label className="inline-flex min-h-12 cursor-pointer items-center border border-ink bg-sheet px-4 text-body font-semibold focus-within:outline-3 focus-within:outline-now">
          Pick a file
          <input
            type="file"
            accept="image/jpeg,image/png,image/webp"
            className="sr-only"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) void keep(problem.about, () => file);
            }}
          />
        </label>
        <Button onClick={() => setProblem(null)}>Go on without</Button>
      </div>
    </Trouble>
  ) : taking > 0 ? (
    <p role="status" className="bg-sheet px-3 py-2 text-body">
      Taking the picture
    </p>
  ) : kept ? (
    <div role="status" className="flex items-center gap-3 border border-ink bg-sheet p-2">
      <img src={photoUrl(job, kept.thumb)} alt="" className="h-20 w-auto" />
      <p className="text-body">
        Kept{kept.of === 'mat' ? ', of the mat' : kept.step ? ' with this step' : ''}.<br />
        <span className="text-quiet">U takes it back.</span>
      </p>
    </div>
  ) : null;
  return { take, shown };
}
