import { useState } from 'react';
import { useSettings } from '../../app/settings.ts';
import { Button } from '../../ui/button.tsx';
import { Field } from '../../ui/field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { type Closing, submitted } from '../../ui/form.ts';

/** Who is at the bench: picked once, goes into every event. */
export function PersonPanel({ open, onClose }: Closing) {
  const { person, people, setPerson } = useSettings();
  const [name, setName] = useState(person);
  const pick = (picked: string) => {
    if (!picked.trim()) return;
    setPerson(picked.trim());
    onClose();
  };
  return (
    <Panel
      title="Who is at the bench"
      said="Asked once. The name goes into everything that is recorded here."
      open={open}
      onClose={onClose}
    >
      <form onSubmit={submitted(() => pick(name))} className="flex flex-col gap-4">
        <Field label="Name" value={name} onChange={(event) => setName(event.target.value)} autoFocus maxLength={60} />
        {people.length > 0 && (
          <div className="flex flex-wrap gap-2">
            {people.map((each) => (
              <Button key={each} onClick={() => pick(each)}>
                {each}
              </Button>
            ))}
          </div>
        )}
        <Button weight="loud" type="submit" keyName="Enter">
          That is me
        </Button>
      </form>
    </Panel>
  );
}
