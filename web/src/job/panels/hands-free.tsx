import { useSettings } from '../../app/settings.ts';
import { Choice } from '../../ui/choice.tsx';

/** What is heard and seen while both hands are busy; each can be switched off. */
export function HandsFree() {
  const { sound, speech, isLarge, isAwake, setSound, setSpeech, setLarge, setAwake } = useSettings();
  return (
    <>
      <OnOff label="Step sound" value={sound} onChange={setSound} />
      <OnOff label="Spoken step" value={speech} onChange={setSpeech} />
      <OnOff label="Large letters" value={isLarge} onChange={setLarge} />
      <OnOff label="Screen stays on" value={isAwake} onChange={setAwake} />
    </>
  );
}

const OPTIONS = [
  { value: 'on', label: 'on' },
  { value: 'off', label: 'off' },
] as const;

interface OnOffProps {
  readonly label: string;
  readonly value: boolean;
  onChange(value: boolean): void;
}

function OnOff({ label, value, onChange }: OnOffProps) {
  return (
    <>
      <span>{label}</span>
      <Choice
        label={label}
        value={value ? 'on' : 'off'}
        onChange={(next) => onChange(next === 'on')}
        options={OPTIONS}
      />
    </>
  );
}
