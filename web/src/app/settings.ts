import { create } from 'zustand';
import { persist } from 'zustand/middleware';

export type Theme = 'light' | 'dark' | 'system';

/** All is computed and kept in °C; this is how it is shown at this bench. */
export type TemperatureUnit = 'C' | 'F';

/** What the shop's driver shows; maps and records are in N·cm. */
export const TORQUE_UNITS = ['N·cm', 'N·m', 'kgf·cm', 'ozf·in'] as const;
export type TorqueUnit = (typeof TORQUE_UNITS)[number];

interface Settings {
  readonly theme: Theme;
  readonly sound: boolean;
  readonly speech: boolean;
  /** letters that are read from two metres */
  readonly isLarge: boolean;
  /** the screen is kept on while a repair is in hand */
  readonly isAwake: boolean;
  readonly temperature: TemperatureUnit;
  readonly torque: TorqueUnit;
  /** what this bench is called, where a workshop has several; empty for the only one */
  readonly bench: string;
  /** who is at this bench; picked once, goes into every event */
  readonly person: string;
  readonly people: readonly string[];
  setTheme(theme: Theme): void;
  setSound(sound: boolean): void;
  setSpeech(speech: boolean): void;
  setLarge(isLarge: boolean): void;
  setAwake(isAwake: boolean): void;
  setTemperature(temperature: TemperatureUnit): void;
  setTorque(torque: TorqueUnit): void;
  setBench(bench: string): void;
  setPerson(person: string): void;
}

/** What this browser remembers of its bench. */
export const useSettings = create<Settings>()(
  persist(
    (set) => ({
      theme: 'system',
      sound: true,
      speech: false,
      isLarge: false,
      isAwake: true,
      temperature: 'C',
      torque: 'N·cm',
      bench: '',
      person: '',
      people: [],
      setTheme: (theme) => set({ theme }),
      setSound: (sound) => set({ sound }),
      setSpeech: (speech) => set({ speech }),
      setLarge: (isLarge) => set({ isLarge }),
      setAwake: (isAwake) => set({ isAwake }),
      setTemperature: (temperature) => set({ temperature }),
      setTorque: (torque) => set({ torque }),
      setBench: (bench) => set({ bench }),
      setPerson: (person) =>
        set(({ people }) => ({ person, people: [person, ...people.filter((each) => each !== person)].slice(0, 12) })),
    }),
    { name: 'nibrel.bench' },
  ),
);

/** The bench that heat and solvent are told for; nothing where there is only one. */
export function atBench(): { readonly bench?: string } {
  const bench = useSettings.getState().bench.trim();
  return bench === '' ? {} : { bench };
}

/** Puts the theme on the document, and follows the system where that is what was chosen. */
export function followTheme(): void {
  const system = matchMedia('(prefers-color-scheme: dark)');
  const show = () => {
    const { theme } = useSettings.getState();
    document.documentElement.classList.toggle('dark', theme === 'dark' || (theme === 'system' && system.matches));
  };
  show();
  system.addEventListener('change', show);
  useSettings.subscribe(show);
}
