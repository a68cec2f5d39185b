import { useState } from 'react';
import { Button } from '../ui/button.tsx';
import { submitted } from '../ui/form.ts';

interface OwnerWordsProps {
  readonly words: string;
  onWords(text: string): void;
}

/** What the owner says is wrong, in the owner's words. */
export function OwnerWords({ words, onWords }: OwnerWordsProps) {
  const [typed, setTyped] = useState(words);
  const [known, setKnown] = useState(words);
  // another window may have written them
  if (words !== known) {
    setKnown(words);
    setTyped(words);
  }
  return (
    <form onSubmit={submitted(() => typed.trim() && onWords(typed.trim()))}>
      <label htmlFor="owner-words" className="block text-note text-quiet">
        The owner says
      </label>
      <textarea
        id="owner-words"
        rows={2}
        maxLength={4000}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => typed.trim() && typed.trim() !== words && onWords(typed.trim())}
        className="mt-0.5 w-full resize-none border-b-2 border-ink bg-transparent px-1 py-1 text-body"
      />
      {typed.trim() !== words && (
        <Button type="submit" className="mt-1">
          Note it
        </Button>
      )}
    </form>
  );
}
