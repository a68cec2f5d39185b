import type { Gives, Page, Question, Sheet, Telling } from '@nibrel/core/asking/question';
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
  /** what is told now of a device without a map, and where in its record that belongs */
  onTell?(telling: Telling): void;
  onInsert?(before: string | null): void;
  /** all that was said was taken; what is told next */
  onSaid?(next: Telling | undefined): void;
}

/** Does what an answer gives: nothing is decided here. @returns was it taken? */
export function useGive({ say, undo, job }: Session, on: Giving) {
  const navigate = useNavigate();
  const tell = useTellShop();
  return async (gives: Gives): Promise<boolean> => {
    if (gives.kind === 'say') return said(gives);
    aside(gives);
    return true;
  };

  async function said({ events, teaches, then, next }: Extract<Gives, { kind: 'say' }>): Promise<boolean> {
    if (events.some(({ type, data }) => type === 'test' && data.result === 'fails')) sound('fails');
    for (const each of events) if (!(await say(each))) return false;
    if (teaches) tell.mutate(teaches);
    on.onSaid?.(next);
    const isFinished = events.some(({ type }) => type === 'finish');
    if (isFinished) sound('finished');
    const to = isFinished ? 'record' : then;
    if (to !== undefined) void navigate(`/jobs/${job!.id}${PAGES[to]}`);
    return true;
  }

  /** What tells the job nothing. */
  function aside(gives: Exclude<Gives, { kind: 'say' }>): void {
    switch (gives.kind) {
      case 'go':
        return void navigate(`/jobs/${job!.id}${PAGES[gives.to]}`);
      case 'desk':
        return void navigate(`/parts/${gives.part}`);
      case 'ask':
        return on.onAsk?.(gives.about, gives.trouble);
      case 'then':
        return on.onThen?.(gives.question);
      case 'mark':
        return on.onMark?.(gives);
      case 'tell':
        return on.onTell?.(gives.telling);
      case 'insert':
        return on.onInsert?.(gives.before);
      case 'shop':
        return tell.mutate({ type: gives.type, data: gives.data });
      case 'undo':
        return void undo();
      case 'picture':
        return on.onPicture?.(gives.of);
      case 'look':
        return on.onLook?.(gives.at);
      case 'until':
        return on.onUntil?.();
      // of a repair that does not exist yet: `NewRepair` does it
      case 'pick':
        return undefined;
      case 'nothing':
        return sound('refused');
    }
  }
}
