// The runs before this one: how each went, and the tests that somebody should look at, a mark a run.
import { RunsChart, TimesChart } from '../marks/charts';
import { Mark } from '../marks/mark';
import { Marks as MarkRow } from '../marks/marks';
import { earlierFiles } from '../data/loaded';
import { needsAttention } from '../data/outcomes';
import { testLink } from '../data/route';
import { count, durationText, moment, whole } from '../words/text';
import type { EarlierRun, Marks, RunData } from '../data/types';
import { t } from '../words/texts';

const TITLES = {
  failing: 'Failing or flaky now',
  flaky: 'Flaky in these runs',
  slower: 'Slower than they were',
} as const;

export function Earlier({ data }: { data: RunData }) {
  const file = earlierFiles.get('0').value;
  if (!data.earlier)
    return (
      <main class="lost">
        <h1>{t('No earlier run is known')}</h1>
        <p>
          {t('Remember runs with {0}, and write the page with {1}.', 'verbale history add', '--history')}
        </p>
      </main>
    );
  const now = ofThisRun(data);
  const all = [...data.earlier.list, now];
  const good = data.earlier.list.filter(([, , , attention]) => attention === 0).length;
  return (
    <main class="earlier">
      <h1>
        {t('{0} of the last {1} passed whole.', good === 0 ? t('None') : whole(good), count(data.earlier.runs, 'run'))} {trend(data.earlier.list, now)}
      </h1>
      <RunsChart runs={all} />
      <TimesChart runs={all} />
      {file.state === 'lost' && <p>{t('The file with the tests of these runs is missing beside the page.')}</p>}
      {file.state === 'here' && (Object.keys(TITLES) as Marks['why'][]).map((why) => <Matrix key={why} title={t(TITLES[why])} rows={file.value.filter((row) => row.why === why)} />)}
      <RunTable runs={all} />
    </main>
  );
}

/** This one as the others are. */
export function ofThisRun(data: RunData): EarlierRun {
  const attention = Object.entries(data.counts).reduce((sum, [outcome, number]) => sum + (needsAttention(outcome) ? number : 0), 0);
  return [data.name, data.started, data.tests, attention + data.broken.length, data.duration, ''];
}

/** Beside the run before, whatever it was. */
function trend(before: EarlierRun[], now: EarlierRun): string {
  const last = before.at(-1)?.[3] ?? 0;
  const all = now[3] === 0 ? t('none') : whole(now[3]);
  if (now[3] === last) return t('As in the run before, {0} did not pass.', all);
  return t('This time {0} did not pass; in the run before, {1}.', all, last === 0 ? t('none') : whole(last));
}

function Matrix({ title, rows }: { title: string; rows: Marks[] }) {
  if (rows.length === 0) return null;
  return (
    <table class="matrix">
      <caption>
        {title} <span class="marks-of">{t('the runs before this one')}</span>
      </caption>
      <tbody>
        {rows.map((row, index) => (
          <tr key={row.id ?? index}>
            <th scope="row">
              {row.outcome && <Mark outcome={row.outcome} />} {row.in && <span class="dim">{row.in} › </span>}
              {row.id ? <a href={testLink(row.id)}>{row.name}</a> : row.name}
            </th>
            <td class="dim">
              {row.usually !== undefined && row.now !== undefined && `${durationText(row.usually)} → ${durationText(row.now)} `}
              <MarkRow letters={row.letters} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function RunTable({ runs }: { runs: EarlierRun[] }) {
  return (
    <details>
      <summary>{t('The runs in numbers')}</summary>
      <table class="groups">
        <thead>
          <tr>
            <th scope="col">{t('run')}</th>
            <th scope="col">{t('began')}</th>
            <th scope="col" class="number">{t('did not pass')}</th>
            <th scope="col" class="number">{t('tests')}</th>
            <th scope="col" class="number">{t('time')}</th>
          </tr>
        </thead>
        <tbody>
          {runs.toReversed().map(([name, started, tests, attention, duration, commit]) => (
            <tr key={name}>
              <th scope="row" class="code">
                {name} {commit && <span class="dim">{commit.slice(0, 10)}</span>}
              </th>
              <td>{moment(started, 0)}</td>
              <td class="number">{whole(attention)}</td>
              <td class="number">{whole(tests)}</td>
              <td class="number">{durationText(duration)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
