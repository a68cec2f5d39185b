import { useEffect, useRef } from 'react';

export type KeyMap = Readonly<Record<string, () => void>>;

/**
 * Keys of a view, by `KeyboardEvent.key` (letters in lower case). A key held down counts once. Keys are left alone while
 * something is typed, while a dialog is open, and where a pressed control would act on them itself.
 */
export function useKeys(keys: KeyMap, active = true): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    if (!active) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.repeat && latest.current[nameOf(event)]) return event.preventDefault();
      if (event.ctrlKey || event.metaKey || event.altKey || isBusy(event)) return;
      const action = latest.current[nameOf(event)];
      if (!action) return;
      event.preventDefault();
      action();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [active]);
}

function nameOf(event: KeyboardEvent): string {
  return event.key.length === 1 ? event.key.toLowerCase() : event.key;
}

function isBusy(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  if (document.querySelector('[role="dialog"], [role="alertdialog"]')) return true;
  if (!target) return false;
  if (target.closest('input, textarea, select, [contenteditable], [role="slider"], [role="radiogroup"]')) {
    return !['Escape', 'F1'].includes(event.key);
  }
  const acts = target.closest('button, a, [role="button"], summary');
  return acts !== null && (event.key === ' ' || event.key === 'Enter') && !acts.hasAttribute('data-step');
}
