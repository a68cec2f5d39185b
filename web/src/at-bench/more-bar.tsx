import { Button } from '../ui/button.tsx';

export type PanelName =
  'wet' | 'transplant' | 'person' | 'note' | 'trouble' | 'stop' | 'lead' | 'target' | 'keys' | 'other' | 'missing';

interface MoreBarProps {
  readonly paused: boolean;
  onUndo(): void;
  onPanel(panel: PanelName): void;
  onPause(): void;
  onIntake(): void;
}

/** What else can be done at the bench, always in sight at the same place; to stop is at the end, apart. */
export function MoreBar({ paused, onUndo, onPanel, onPause, onIntake }: MoreBarProps) {
  return (
    <nav
      aria-label="More"
      className="sticky bottom-0 z-10 flex flex-wrap border-t border-ink bg-paper px-2 text-note [&_kbd]:hidden xl:[&_kbd]:inline-block [&>button]:px-3"
    >
      <Button weight="quiet" keyName="U" onClick={onUndo}>
        Undo
      </Button>
      <Button weight="quiet" keyName="T" onClick={() => onPanel('trouble')}>
        Trouble
      </Button>
      <Button weight="quiet" keyName="E" onClick={() => onPanel('other')}>
        Something else
      </Button>
      <Button weight="quiet" keyName="G" onClick={() => onPanel('target')}>
        Target
      </Button>
      <Button weight="quiet" keyName="N" onClick={() => onPanel('note')}>
        Note
      </Button>
      <Button weight="quiet" keyName="P" onClick={onPause}>
        {paused ? 'Go on' : 'Pause'}
      </Button>
      <Button weight="quiet" keyName="A" onClick={onIntake}>
        Intake
      </Button>
      <Button weight="quiet" keyName="?" onClick={() => onPanel('keys')}>
        Keys
      </Button>
      <Button weight="quiet" keyName="X" className="ml-auto font-bold text-now" onClick={() => onPanel('stop')}>
        Stop now
      </Button>
    </nav>
  );
}
