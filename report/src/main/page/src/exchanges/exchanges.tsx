// All exchanges of the run: how each endpoint did, and every one of them.
import { useMemo } from 'preact/hooks';
import { Times, timesScale } from '../marks/charts';
import { RESPONSES, isUnexpected, responseOf, COLUMN, endpoints, namesOf, withoutRandomPort, type Endpoint } from './endpoints';
import { short } from './exchange';
import { Uncalled } from './uncalled';
import { statusText } from '../marks/status';
import { exchangeRows, MAX_EXCHANGES } from '../data/loaded';
import { exchangesLink, testLink, route } from '../data/route';
import { bytes, count, durationText, offset, whole } from '../words/text';
import type { ExchangeRow, RunData } from '../data/types';
import { known, t } from '../words/texts';

const MAX_LINES = 500;
const ORDERS = ['longest', 'time', 'status', 'size', 'path', 'test'] as const;
const at = (row: ExchangeRow) => row[COLUMN.at];
const BY = {
  longest: (a: ExchangeRow, b: ExchangeRow) => b[COLUMN.duration] - a[COLUMN.duration],
  time: (a: ExchangeRow, b: ExchangeRow) => at(a) - at(b),
  status: (a: ExchangeRow, b: ExchangeRow) => (b[COLUMN.status] || 999) - (a[COLUMN.status] || 999),
  size: (a: ExchangeRow, b: ExchangeRow) => b[COLUMN.size] - a[COLUMN.size],
  path: (a: ExchangeRow, b: ExchangeRow) => short(a[COLUMN.url]).localeCompare(short(b[COLUMN.url])) || at(a) - at(b),
  test: (a: ExchangeRow, b: ExchangeRow) => a[COLUMN.row] - b[COLUMN.row] || at(a) - at(b),
};

export function Exchanges({ data }: { data: RunData }) {
  const params = route.value.params;
  const words = params.get('find') ?? '';
  const response = params.get('response') ?? '';
  const checks = params.get('checks') === 'failed';
  const host = params.get('host') ?? '';
  const endpoint = params.get('endpoint') ?? '';
  const order = ORDERS.find((one) => one === params.get('order')) ?? ORDERS[0];
  const { rows, lost } = exchangeRows(data);
  const names = useMemo(() => namesOf(rows), [rows.length]);
  const table = useMemo(() => endpoints(rows, names).sort((a, b) => (b.p95 ?? -1) - (a.p95 ?? -1)), [names]);
  const found = rows
    .filter(
      (row, index) =>
        (!response || responseOf(row) === response) &&
        (!checks || row[COLUMN.failedChecks] > 0) &&
        (!host || hostOf(row[COLUMN.url]) === host) &&
        (!endpoint || names[index] === endpoint) &&
        matches(row, data, words.toLowerCase()),
    )
    .sort(BY[order]);
  const hosts = useMemo(() => [...new Set(rows.map((row) => hostOf(row[COLUMN.url])))].sort(), [rows.length]);
  const go = (change: Record<string, string>) => {
    history.replaceState(null, '', exchangesLink({ find: words, response, checks: checks ? 'failed' : '', host, endpoint, order, ...change }));
    dispatchEvent(new HashChangeEvent('hashchange'));
  };
  return (
    <main class="exchanges">
      <h1>{count(data.exchanges, 'exchange')}</h1>
      {rows.length > 0 && <Totals rows={rows} />}
      {lost && (
        <p class="reason">{t('A file that holds them is missing beside the page. Copy or unpack its folder as a whole.')}</p>
      )}
      {data.exchanges > MAX_EXCHANGES && <p class="reason">{t('Only the first {0} are shown.', whole(MAX_EXCHANGES))}</p>}
      <Endpoints table={table} chosen={endpoint} onChoose={(name) => go({ endpoint: name === endpoint ? '' : name })} />
      <Uncalled data={data} rows={rows} />
      <div class="controls">
        <label class="find">
          <span class="visually-hidden">{t('Search URLs, methods, states and tests')}</span>
          <input type="search" placeholder={t('Search')} value={words} onInput={(e) => go({ find: e.currentTarget.value })} />
        </label>
        <div class="filters">
          {RESPONSES.map((one) => (
            <button key={one} aria-pressed={response === one} onClick={() => go({ response: response === one ? '' : one })}>
              {known(one)} <span class="dim">{whole(rows.filter((row) => responseOf(row) === one).length)}</span>
            </button>
          ))}
          <button aria-pressed={checks} onClick={() => go({ checks: checks ? '' : 'failed' })}>
            {t('failed checks')} <span class="dim">{whole(rows.filter((row) => row[COLUMN.failedChecks] > 0).length)}</span>
          </button>
        </div>
        {hosts.length > 1 && (
          <label class="choice">
            {t('Host')}{' '}
            <select value={host} onChange={(e) => go({ host: e.currentTarget.value })}>
              <option value="">{t('all')}</option>
              {hosts.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </label>
        )}
        <label class="choice">
          {t('Order')}{' '}
          <select value={order} onChange={(e) => go({ order: e.currentTarget.value })}>
            {ORDERS.map((one) => (
              <option key={one} value={one}>
                {t(one)}
              </option>
            ))}
          </select>
        </label>
      </div>
      <p class="dim found" role="status">
        {t('{0} of {1}', whole(found.length), whole(rows.length))}
        {found.length > MAX_LINES && t(', the first {0} below', MAX_LINES)}
      </p>
      <table class="list">
        <tbody>
          {found.slice(0, MAX_LINES).map((row, index) => (
            <Line key={index} row={row} data={data} />
          ))}
        </tbody>
      </table>
    </main>
  );
}

function Totals({ rows }: { rows: ExchangeRow[] }) {
  const size = rows.reduce((all, row) => all + Math.max(0, row[COLUMN.size]), 0);
  const failed = rows.filter((row) => row[COLUMN.failedChecks] > 0).length;
  const responses = RESPONSES.map((one) => `${known(one)}: ${whole(rows.filter((row) => responseOf(row) === one).length)}`).join(', ');
  return (
    <p class="dim totals">
      {t('{0} received', bytes(size))}; {responses}, {t('failed checks')}: {whole(failed)}
    </p>
  );
}

function Endpoints(props: { table: Endpoint[]; chosen: string; onChoose(name: string): void }) {
  const scale = useMemo(() => timesScale(props.table.flatMap((one) => one.times)), [props.table]);
  return (
    <table class="endpoints">
      <thead>
        <tr>
          <th scope="col">{t('Endpoint')}</th>
          <th scope="col">{t('count')}</th>
          <th scope="col">p50</th>
          <th scope="col">p95</th>
          <th scope="col">{t('mean')}</th>
          <th scope="col" class="of-times">{t('times')}</th>
          {RESPONSES.map((response) => (
            <th key={response} scope="col">
              {known(response)}
            </th>
          ))}
          <th scope="col">{t('failed checks')}</th>
          <th scope="col">{t('bytes')}</th>
        </tr>
      </thead>
      <tbody>
        {props.table.map((one) => (
          <tr key={one.name} class={one.name === props.chosen ? 'chosen' : ''}>
            <th scope="row">
              <button class="quiet" aria-pressed={one.name === props.chosen} onClick={() => props.onChoose(one.name)}>
                {one.name}
              </button>
            </th>
            <td data-name={t('count')}>{whole(one.count)}</td>
            <td data-name="p50">{one.p50 === undefined ? '–' : durationText(one.p50)}</td>
            <td data-name="p95">{one.p95 === undefined ? '–' : durationText(one.p95)}</td>
            <td data-name={t('mean')}>{one.mean === undefined ? '–' : durationText(one.mean)}</td>
            <td class="of-times">
              <Times times={one.times} scale={scale} />
            </td>
            {RESPONSES.map((response) => (
              <td key={response} data-name={known(response)} class={one.responses[response] > 0 ? '' : 'dim'}>
                {one.responses[response] === 0 ? '–' : whole(one.responses[response])}
              </td>
            ))}
            <td data-name={t('failed checks')} class={one.failedChecks > 0 ? 'failed' : 'dim'}>
              {one.failedChecks === 0 ? '–' : whole(one.failedChecks)}
            </td>
            <td data-name={t('bytes')} class="dim">{bytes(one.bytes)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Line({ row, data }: { row: ExchangeRow; data: RunData }) {
  const [position, , at, duration, method, url, status, size, failed, checks] = row;
  const test = data.rows[position];
  return (
    <tr class={isUnexpected(responseOf(row), checks, test?.outcome) ? 'bad' : ''}>
      <td class="time dim">{offset(at)}</td>
      <td class="status">{statusText(status)}</td>
      <td class="code">
        <b>{method}</b> {short(url)} {failed && <span class="dim">{failed}</span>}
        {checks > 0 && <span class="failed"> {t('{0} failed', count(checks, 'check'))}</span>}
      </td>
      <td class="duration">{duration < 0 ? '' : durationText(duration)}</td>
      <td class="duration dim">{size < 0 ? '' : bytes(size)}</td>
      <td class="of">
        <a href={testLink(test ? test.id : 'run')}>{test ? test.name : t('outside tests')}</a>
      </td>
    </tr>
  );
}

function hostOf(url: string): string {
  return /^[a-z][a-z0-9+.-]*:\/\/([^/?#]*)/i.exec(withoutRandomPort(url))?.[1] ?? '';
}

function matches(row: ExchangeRow, data: RunData, words: string): boolean {
  if (!words) return true;
  const text = `${row[COLUMN.method]} ${row[COLUMN.url]} ${row[COLUMN.status]} ${row[COLUMN.failed]} ${data.rows[row[COLUMN.row]]?.name ?? ''}`.toLowerCase();
  return words.split(/\s+/).every((word) => text.includes(word));
}
