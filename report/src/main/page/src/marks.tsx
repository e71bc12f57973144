// What became of a test in runs before, a mark each, the oldest first.
import type { Outcome } from './types';

const OUTCOMES: Record<string, Outcome> = { '.': 'passed', '~': 'flaky', F: 'failed', '-': 'skipped', ' ': 'absent' };
const WORDS: Record<string, string> = { '.': 'passed', '~': 'flaky', F: 'failed', '-': 'not run', ' ': 'not there' };

export function Marks({ letters }: { letters: string }) {
  const all = [...letters];
  return (
    <span class="marks" role="img" aria-label={`Earlier runs, the oldest first: ${all.map((letter) => WORDS[letter] ?? letter).join(', ')}`}>
      {all.map((letter, index) => (
        <span key={index} class={OUTCOMES[letter]} />
      ))}
    </span>
  );
}
