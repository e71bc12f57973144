// Keys that mean something wherever the reader is, but in a field.
import { signal } from '@preact/signals';

/** Set by who goes to the list of tests to search in it. */
export const searchWanted = signal(false);

/** Calls `act` when `key` is pressed outside a field; gives back what stops it. */
export function onKey(key: string, act: () => void): () => void {
  const listen = (event: KeyboardEvent) => {
    const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement;
    if (event.key !== key || typing || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    act();
  };
  addEventListener('keydown', listen);
  return () => removeEventListener('keydown', listen);
}
