// An outcome as a shape, so that nobody has to tell it by its colour.
import type { ComponentChildren } from 'preact';
import { outcomeText } from '../data/outcomes';
import type { Outcome } from '../data/types';

const SHAPES: Record<string, ComponentChildren> = {
  passed: <circle cx="8" cy="8" r="3.2" fill="currentColor" stroke="none" />,
  skipped: <path d="M3.5 8h9" />,
  aborted: <path d="M8 3a5 5 0 0 1 0 10z M8 3a5 5 0 0 0 0 10" fill="none" />,
  'expected-failure': <path d="M8 2.5 13.5 8 8 13.5 2.5 8z" fill="none" />,
  unfinished: <circle cx="8" cy="8" r="5" fill="none" stroke-dasharray="2.6 2.6" />,
  failed: <path d="M3.5 3.5l9 9M12.5 3.5l-9 9" stroke-width="2.6" />,
  errored: <path d="M8 2 14.6 13.6H1.4z M8 6.4v3.4 M8 11.3v.9" fill="none" stroke-width="1.6" />,
};

/** Of a later version. */
const UNKNOWN = <path d="M5.6 6a2.4 2.4 0 1 1 3.4 2.2c-.7.4-1 .8-1 1.7 M8 12.4v.9" fill="none" stroke-width="1.6" />;

export function Mark({ outcome }: { outcome: Outcome }) {
  return (
    <svg class={`mark ${outcome}`} viewBox="0 0 16 16" role="img" aria-label={outcomeText(outcome)}>
      {SHAPES[outcome] ?? UNKNOWN}
    </svg>
  );
}
