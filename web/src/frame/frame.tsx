import type { ReactNode } from 'react';
import { useSettings } from '../app/settings.ts';

interface FrameProps {
  /** which repair, and how far */
  readonly head: ReactNode;
  /** what is asked */
  readonly asked: ReactNode;
  /** tells one question from the next: each begins at its top */
  readonly askedId: string;
  /** the drawing */
  readonly where: ReactNode;
  /** what lies loose */
  readonly loose?: ReactNode;
  readonly bar: ReactNode;
}

/**
 * One question in one frame, from taking in to handing over: what is asked at the left, the drawing beside it, what lies
 * loose at the right, and every answer in a bar along the bottom. On an upright tablet the drawing is on top.
 */
export function Frame({ head, asked, askedId, where, loose, bar }: FrameProps) {
  const isLarge = useSettings((settings) => settings.isLarge);
  return (
    <div className={`flex min-h-dvh flex-col md:h-dvh ${isLarge ? 'for-far' : ''}`} onClick={letGo}>
      {head}
      <main className="frame grid min-h-0 grow" data-loose={loose ? '' : undefined}>
        <div
          key={askedId}
          tabIndex={-1}
          className="frame-asked flex min-h-0 flex-col overflow-y-auto border-ink bg-sheet outline-none max-lg:md:border-t lg:border-r"
        >
          {asked}
        </div>
        <div className="frame-where relative min-h-0 min-w-0">{where}</div>
        {loose && <div className="frame-loose flex min-h-0 min-w-0 flex-col border-ink md:border-l">{loose}</div>}
      </main>
      {bar}
    </div>
  );
}

/** A button that was pressed by hand does not keep the pedal: the next Space is the main answer again. */
function letGo(event: React.MouseEvent) {
  if (event.detail > 0) (event.target as HTMLElement).closest('button')?.blur();
}
