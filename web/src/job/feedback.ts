import { useEffect } from 'react';
import { useSettings } from '../app/settings.ts';

let audio: AudioContext | null = null;

/** A short sound for a step taken, a lower one for one refused. */
export function sound(kind: 'step' | 'refused' | 'time-up'): void {
  if (!useSettings.getState().sound || !('AudioContext' in globalThis)) return;
  audio ??= new AudioContext();
  const tone = { step: 660, refused: 180, 'time-up': 880 }[kind];
  const oscillator = audio.createOscillator();
  const gain = audio.createGain();
  oscillator.frequency.value = tone;
  gain.gain.setValueAtTime(0.12, audio.currentTime);
  gain.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + 0.18);
  oscillator.connect(gain).connect(audio.destination);
  oscillator.start();
  oscillator.stop(audio.currentTime + 0.2);
}

/** Speaks the step, with the browser's own voice, where that is wanted. */
export function useSpokenStep(text: string): void {
  const speech = useSettings((settings) => settings.speech);
  useEffect(() => {
    if (!speech || !text || !('speechSynthesis' in window)) return;
    speechSynthesis.cancel();
    speechSynthesis.speak(new SpeechSynthesisUtterance(text));
  }, [speech, text]);
}

/** Keeps the screen awake while a repair is in hand; browsers that can't are left alone. */
export function useWakeLock(): void {
  useEffect(() => {
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
  }, []);
}
