// A test that ran over several rows of data: the rows as a table, to be filtered.
import { useState } from 'preact/hooks';
import { Mark } from '../marks/mark';
import { gravity } from '../data/outcomes';
import { testLink } from '../data/route';
import { count, durationText, whole } from '../words/text';
import type { Row, RunData } from '../data/types';
import { t } from '../words/texts';

const MAX_COLUMNS = 6;
const MAX_CHECKS = 2;
const MAX_ROWS = 200;

export function DataRows({ data, row }: { data: RunData; row: Row }) {
  const [words, setWords] = useState('');
  if (row.set === undefined) return null;
  const all = data.rows.filter((one) => one.set === row.set && !one.superseded);
  const names = [...new Set(all.flatMap((one) => one.values?.map(([name]) => name) ?? []))];
  const columns = names.slice(0, MAX_COLUMNS);
  const checked = failedChecks(all);
  const same = shared(all.map((one) => one.name));
  const found = all.filter((one) => matches(one, words.toLowerCase())).toSorted((a, b) => gravity(b.outcome) - gravity(a.outcome));
  const bad = all.filter((one) => one.outcome !== 'passed').length;
  return (
    <details class="data-rows" open={all.length <= 12}>
      <summary>
        {t('One of {0} of data', count(all.length, 'row'))}, {bad === 0 ? t('all of which passed') : t('{0} of which did not pass', whole(bad))}
      </summary>
      {all.length > 5 && (
        <label class="find">
          <span class="visually-hidden">{t('Search in the rows')}</span>
          <input type="search" placeholder={t('Search in the rows')} value={words} onInput={(e) => setWords(e.currentTarget.value)} />
        </label>
      )}
      <table>
        <thead>
          <tr>
            <th scope="col">{t('row')}</th>
            {columns.map((name) => (
              <th key={name} scope="col">
                {name}
              </th>
            ))}
            {checked.map((name) => (
              <th key={name} scope="col">
                {t('found: {0}', name)}
              </th>
            ))}
            <th scope="col">{t('time')}</th>
            <th scope="col">{t('failed first')}</th>
          </tr>
        </thead>
        <tbody>
          {found.slice(0, MAX_ROWS).map((one) => (
            <tr key={one.id} class={one.id === row.id ? 'chosen' : ''}>
              <th scope="row">
                <Mark outcome={one.outcome} /> {one.id === row.id ? <b>{one.name.slice(same)}</b> : <a href={testLink(one.id)}>{one.name.slice(same)}</a>}
              </th>
              {columns.map((name) => (
                <td key={name} data-name={name}>{one.values?.find(([key]) => key === name)?.[1]}</td>
              ))}
              {checked.map((name) => (
                <td key={name} data-name={t('found: {0}', name)} class={failedIn(one, name) ? 'failed' : ''}>{one.found?.find(([key]) => key === name)?.[1]}</td>
              ))}
              <td class="duration" data-name={t('time')}>{durationText(one.duration)}</td>
              <td>{one.outcome === 'passed' ? '' : (one.failing ?? one.message)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {names.length > MAX_COLUMNS && <p class="dim">{t('Not shown in the table: {0}', names.slice(MAX_COLUMNS).join(', '))}</p>}
      {found.length > MAX_ROWS && <p class="dim">{t('and {0} more', whole(found.length - MAX_ROWS))}</p>}
    </details>
  );
}

/** What failed checks of any row looked at, and rows say what they found there. */
function failedChecks(rows: Row[]): string[] {
  const names = new Set(rows.flatMap((one) => one.found?.map(([name]) => name) ?? []));
  return [...names].filter((name) => rows.some((one) => failedIn(one, name))).slice(0, MAX_CHECKS);
}

const failedIn = (row: Row, name: string) => row.failing === name || row.failing?.startsWith(`${name}: `);

function matches(row: Row, words: string): boolean {
  const text = `${row.name} ${row.outcome} ${row.found?.join(' ') ?? ''} ${row.failing ?? ''} ${row.message ?? ''} ${row.data ?? ''}`.toLowerCase();
  return words.split(/\s+/).every((word) => text.includes(word));
}

/** How many characters all names begin with, in whole words; none where that would leave nothing of one. */
function shared(names: string[]): number {
  const [first = ''] = names;
  let length = 0;
  while (length < first.length && names.every((name) => name[length] === first[length])) length++;
  const words = first.lastIndexOf(' ', length - 1) + 1;
  return names.every((name) => name.length > words) ? words : 0;
}
