// From a test to its neighbours in the order of time, and to the next failure.
import { useEffect } from 'preact/hooks';
import { onKey } from '../data/keys';
import { needsAttention } from '../data/outcomes';
import { testLink } from '../data/route';
import type { Row, RunData } from '../data/types';
import { t } from '../words/texts';

export function TestNavigation({ data, position }: { data: RunData; position: number }) {
  const before = data.rows[position - 1];
  const after = data.rows[position + 1];
  const failure =
    data.rows.find((row, at) => at > position && needsAttention(row.outcome)) ??
    data.rows.find((row, at) => at !== position && needsAttention(row.outcome));
  const go = (row: Row | undefined) => () => row && (location.hash = testLink(row.id));
  useEffect(() => {
    const stops = [onKey('p', go(before)), onKey('n', go(after)), onKey('f', go(failure))];
    return () => stops.forEach((stop) => stop());
  }, [position]);
  return (
    <nav class="navigation" aria-label={t('Tests')}>
      <NavigationLink to={before} label={t('‹ Previous')} hint="p" />
      <NavigationLink to={after} label={t('Next ›')} hint="n" />
      <NavigationLink to={failure} label={t('Next failure »')} hint="f" />
    </nav>
  );
}

function NavigationLink({ to, label, hint }: { to: Row | undefined; label: string; hint: string }) {
  if (!to) return <span class="dim">{label}</span>;
  return (
    <a href={testLink(to.id)} title={t('{0} (key {1})', to.name, hint)}>
      {label}
    </a>
  );
}
