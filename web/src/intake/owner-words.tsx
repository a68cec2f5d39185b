import Joi from 'joi';
import { Button } from '../ui/button.tsx';
import { Offered } from '../ui/offered.tsx';
import { note } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const schema = Joi.object<{ text: string }>({ text: note(4000) });

interface OwnerWordsProps {
  readonly words: string;
  onWords(text: string): void;
}

/** What the owner says is wrong, in the owner's words. */
export function OwnerWords({ words, onWords }: OwnerWordsProps) {
  const { area, sent, typed, offered } = useFields(schema, { text: words });
  const say = sent(({ text }) => {
    if (text && text !== words) onWords(text);
  });
  return (
    <form onSubmit={say}>
      <label htmlFor="owner-words" className="block text-note text-quiet">
        The owner says
      </label>
      <textarea
        id="owner-words"
        rows={2}
        maxLength={4000}
        // while another window's words are offered nobody has chosen between them and these
        {...area('text', { onBlur: () => void (offered ? null : say()) })}
        className="mt-0.5 w-full resize-none border-b-2 border-ink bg-transparent px-1 py-1 text-body"
      />
      {offered && (
        <Offered said={words} onTake={offered.take}>
          <Button type="submit">Keep mine</Button>
        </Offered>
      )}
      {!offered && typed('text').trim() !== words && (
        <Button type="submit" className="mt-1">
          Note it
        </Button>
      )}
    </form>
  );
}
