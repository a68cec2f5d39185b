import Joi from 'joi';
import { Button } from '../../ui/button.tsx';
import { Field } from '../../ui/field.tsx';
import { Panel } from '../../ui/panel.tsx';
import type { Closing } from '../../ui/form.ts';
import { words } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';

const schema = Joi.object<{ text: string }>({ text: words('Say what it is, or close this', 2000) });

export function NotePanel({ open, onClose, onNote }: Closing & { onNote(text: string): void }) {
  const { field, sent, empty } = useFields(schema, { text: '' });
  const save = sent(({ text }) => {
    onNote(text);
    empty();
    onClose();
  });
  return (
    <Panel title="Note" open={open} onClose={onClose}>
      <form onSubmit={save} className="flex flex-col gap-4">
        <Field label="What is worth knowing later" {...field('text')} autoFocus maxLength={2000} />
        <Button weight="loud" type="submit" keyName="Enter">
          Take the note
        </Button>
      </form>
    </Panel>
  );
}
