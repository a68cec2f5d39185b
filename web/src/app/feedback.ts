import { useEffect } from 'react';
import { useSettings } from './settings.ts';

/** What has just come about, each with a sound of its own. */
type Outcome = 'step' | 'refused' | 'time-up' | 'fails' | 'picture' | 'finished';

/** Hertz, one after the other: what is well goes up, what is not goes down. */
const TONES: Readonly<Record<Outcome, readonly number[]>> = {
  step: [660],
  refused: [180],
  'time-up': [880, 880],
  fails: [392, 262],
  picture: [990],
  finished: [523, 659, 784],
};

const TONE_S = 0.18;

let audio: AudioContext | null = null;

/** A short sound for each outcome; none where sounds are switched off. */
export function sound(kind: Outcome): void {
  if (!useSettings.getState().sound || !('AudioContext' in globalThis)) return;
  audio ??= new AudioContext();
  TONES[kind].forEach((tone, at) => tonedAt(audio!, tone, audio!.currentTime + at * TONE_S));
}

function tonedAt(context: AudioContext, tone: number, at: number): void {
  const oscillator = context.createOscillator();
  const gain = context.createGain();
  oscillator.frequency.value = tone;
  gain.gain.setValueAtTime(0.12, at);
  gain.gain.exponentialRampToValueAtTime(0.001, at + TONE_S);
  oscillator.connect(gain).connect(context.destination);
  oscillator.start(at);
  oscillator.stop(at + TONE_S + 0.02);
}

/** Speaks the step, with the browser's own voice, where that is wanted; with nothing to say it falls silent. */
export function useSpokenStep(text: string): void {
  const speech = useSettings((settings) => settings.speech);
  useEffect(() => {
    if (!speech || !('speechSynthesis' in window)) return;
    speechSynthesis.cancel();
    if (text) speechSynthesis.speak(new SpeechSynthesisUtterance(text));
  }, [speech, text]);
}

/** Keeps the screen awake while a repair is in hand, where that is wanted; browsers that can't are left alone. */
export function useWakeLock(): void {
  const isAwake = useSettings((settings) => settings.isAwake);
  useEffect(() => {
    if (!isAwake) return;
    let lock: WakeLockSentinel | null = null;
    const hold = async () => {
      if (document.hidden || !('wakeLock' in navigator)) return;
      lock = await navigator.wakeLock.request('screen').catch(() => null);
    };
    void hold();
    document.addEventListener('visibilitychange', hold);
    return () => {
      document.removeEventListener('visibilitychange', hold);
      void lock?.release();
    };
  }, [isAwake]);
}
