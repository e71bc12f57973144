// What became of a test in runs before, a mark each, the oldest first.
import type { Outcome } from '../data/types';
import { t } from '../words/texts';

const OUTCOMES: Record<string, Outcome> = { '.': 'passed', '~': 'flaky', F: 'failed', '-': 'skipped', ' ': 'absent' };
const WORDS = { '.': 'passed', '~': 'flaky', F: 'failed', '-': 'not run', ' ': 'not there' } as const;

export function Marks({ letters }: { letters: string }) {
  const all = [...letters];
  return (
    <span class="marks" role="img" aria-label={t('Earlier runs, the oldest first: {0}', all.map((letter) => (letter in WORDS ? t(WORDS[letter as keyof typeof WORDS]) : letter)).join(', '))}>
      {all.map((letter, index) => (
        <span key={index} class={OUTCOMES[letter]} />
      ))}
    </span>
  );
}
