// Outcomes: which is graver, and what they are called.
import { OUTCOMES } from './types';
import type { Outcome, RunData } from './types';
import { known } from '../words/texts';

/** Higher is graver; an outcome of a later version comes behind an unfinished one, so that somebody looks at it. */
export function gravity(outcome: Outcome): number {
  const known: readonly string[] = OUTCOMES;
  const at = known.indexOf(outcome);
  return at < 0 ? known.indexOf('unfinished') + 0.5 : at;
}

/** Those that occur in the run, the gravest first. */
export function outcomesIn(data: RunData): Outcome[] {
  return Object.keys(data.counts).toSorted((a, b) => gravity(b) - gravity(a));
}

/** An outcome in words: `expected failure`. */
export function outcomeText(outcome: Outcome): string {
  return known(outcome.replace(/-/g, ' '));
}

export function needsAttention(outcome: Outcome): boolean {
  return gravity(outcome) >= gravity('unfinished');
}
