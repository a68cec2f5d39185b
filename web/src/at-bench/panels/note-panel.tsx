import { useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Field } from '../../ui/field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { type Closing, submitted } from '../../ui/form.ts';

export function NotePanel({ open, onClose, onNote }: Closing & { onNote(text: string): void }) {
  const [text, setText] = useState('');
  const save = () => {
    if (text.trim()) onNote(text.trim());
    setText('');
    onClose();
  };
  return (
    <Panel title="Note" open={open} onClose={onClose}>
      <form onSubmit={submitted(save)} className="flex flex-col gap-4">
        <Field
          label="What is worth knowing later"
          value={text}
          onChange={(event) => setText(event.target.value)}
          autoFocus
          maxLength={2000}
        />
        <Button weight="loud" type="submit" keyName="Enter">
          Take the note
        </Button>
      </form>
    </Panel>
  );
}
