// What a team says of a failure: its label, who looks after it, until when it is known.
import { t } from '../words/texts';
import { testsLink } from '../data/route';
import type { Rule, RunData } from '../data/types';

export function RuleLine({ rule }: { rule: Rule }) {
  const over = rule.knownUntil !== undefined && isOver(rule.knownUntil);
  const parts = [rule.owner && t('owner {0}', rule.owner), rule.knownUntil && !over && t('known until {0}', rule.knownUntil), rule.comment];
  const link = rule.link && /^https?:/.test(rule.link) ? rule.link : undefined;
  return (
    <p class="rule">
      <a class="label" href={testsLink({ label: rule.label })}>
        {rule.label}
      </a>
      {parts.filter(Boolean).map((part) => `, ${part}`)}
      {over && <b>, {t('was known until {0}: look at it again', rule.knownUntil!)}</b>}
      {link && (
        <>
          {', '}
          <a href={link} target="_blank" rel="noopener noreferrer">
            {t('more')}
          </a>
        </>
      )}
    </p>
  );
}

/** To what is known of a reason over all runs, where a hub shows the page. */
export function ReasonThere({ data, id }: { data: RunData; id: string }) {
  if (data.projectPages === undefined) return null;
  return (
    <p class="there">
      <a href={`${data.projectPages}reasons/${encodeURIComponent(id)}`}>{t('What is known of it')}</a>
    </p>
  );
}

/** Where the page is read, by the day there. */
function isOver(day: string): boolean {
  const now = new Date();
  const today = `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
  return day < today;
}
