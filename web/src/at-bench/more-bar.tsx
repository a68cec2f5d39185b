import { memo } from 'react';
import { Button } from '../ui/button.tsx';

export type PanelName =
  | 'wet'
  | 'transplant'
  | 'person'
  | 'note'
  | 'trouble'
  | 'stop'
  | 'lead'
  | 'target'
  | 'keys'
  | 'other'
  | 'missing'
  | 'not-mapped'
  | 'closing'
  | 'held'
  | 'leaving'
  | 'trial'
  | 'flush';

interface MoreBarProps {
  readonly paused: boolean;
  /** stopped or ended: what goes on with the work waits */
  readonly held: boolean;
  onUndo(): void;
  onPanel(panel: PanelName): void;
  onPause(): void;
  onIntake(): void;
}

/** What else can be done at the bench, always in sight at the same place; to stop is at the end, apart. */
export const MoreBar = memo(function MoreBar({ paused, held, onUndo, onPanel, onPause, onIntake }: MoreBarProps) {
  return (
    <nav
      aria-label="More"
      className="sticky bottom-0 z-10 flex flex-wrap border-t border-ink bg-paper px-2 text-note [&_kbd]:hidden 2xl:[&_kbd]:inline-block [&>button]:px-2 max-lg:[&>button]:text-note lg:[&>button]:px-3.5"
    >
      <Button weight="quiet" keyName="U" disabled={held} onClick={onUndo}>
        Undo
      </Button>
      <Button weight="quiet" keyName="T" disabled={held} onClick={() => onPanel('trouble')}>
        Trouble
      </Button>
      <Button weight="quiet" keyName="Q" onClick={() => onPanel('held')}>
        Stuck
      </Button>
      <Button weight="quiet" keyName="J" disabled={held} onClick={() => onPanel('trial')}>
        Try it
      </Button>
      <Button weight="quiet" keyName="E" disabled={held} onClick={() => onPanel('other')}>
        Something else
      </Button>
      <Button weight="quiet" keyName="O" disabled={held} onClick={() => onPanel('not-mapped')}>
        Not as mapped
      </Button>
      <Button weight="quiet" keyName="G" disabled={held} onClick={() => onPanel('target')}>
        Job
      </Button>
      <Button weight="quiet" keyName="N" onClick={() => onPanel('note')}>
        Note
      </Button>
      <Button weight="quiet" keyName="P" disabled={held} onClick={onPause}>
        {paused ? 'Go on' : 'Pause'}
      </Button>
      <Button weight="quiet" keyName="A" onClick={onIntake}>
        Intake
      </Button>
      <Button weight="quiet" keyName="?" className="max-lg:hidden" onClick={() => onPanel('keys')}>
        Keys
      </Button>
      <Button weight="quiet" keyName="X" className="ml-auto font-bold text-now" onClick={() => onPanel('stop')}>
        Stop now
      </Button>
    </nav>
  );
});
