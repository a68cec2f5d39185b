import type { Gives, Page, Question, Sheet } from '@nibrel/core/asking/question';
import type { TroubleKind } from '@nibrel/core/job/events';
import { useNavigate } from 'react-router';
import { sound } from '../app/feedback.ts';
import type { Session } from '../job/session.ts';
import { useTellShop } from '../kit/tell-shop.ts';

const PAGES: Readonly<Record<Page, string>> = {
  bench: '',
  intake: '/intake',
  prepare: '/prepare',
  way: '/way',
  screws: '/screws',
  record: '/record',
  'hand-over': '/hand-over',
};

/** What a page does of what answers give. */
interface Giving {
  onAsk?(about: Sheet, trouble: TroubleKind | undefined): void;
  onLook?(at: Extract<Gives, { kind: 'look' }>['at']): void;
  onUntil?(): void;
  onPicture?(of: 'step' | 'mat'): void;
  onThen?(question: Question): void;
  onMark?(marked: Extract<Gives, { kind: 'mark' }>): void;
  /** all that was said was taken */
  onSaid?(): void;
}

/** Does what an answer gives: nothing is decided here. */
export function useGive({ say, undo, job }: Session, on: Giving) {
  const navigate = useNavigate();
  const tell = useTellShop();
  return async (gives: Gives): Promise<void> => {
    switch (gives.kind) {
      case 'go':
        return void navigate(`/jobs/${job!.id}${PAGES[gives.to]}`);
      case 'ask':
        return on.onAsk?.(gives.about, gives.trouble);
      case 'undo':
        return void undo();
      case 'picture':
        return on.onPicture?.(gives.of);
      case 'look':
        return on.onLook?.(gives.at);
      case 'until':
        return on.onUntil?.();
      case 'then':
        return on.onThen?.(gives.question);
      case 'mark':
        return on.onMark?.(gives);
      case 'shop':
        return tell.mutate({ type: gives.type, data: gives.data });
      case 'desk':
        return void navigate(`/parts/${gives.part}`);
      case 'nothing':
        return sound('refused');
      case 'say': {
        if (gives.events.some((said) => said.type === 'test' && said.data.result === 'fails')) sound('fails');
        for (const said of gives.events) if (!(await say(said))) return;
        if (gives.teaches) tell.mutate(gives.teaches);
        on.onSaid?.();
        if (gives.then) return void navigate(`/jobs/${job!.id}${PAGES[gives.then]}`);
        if (!gives.events.some(({ type }) => type === 'finish')) return;
        sound('finished');
        return void navigate(`/jobs/${job!.id}/record`);
      }
    }
  };
}
