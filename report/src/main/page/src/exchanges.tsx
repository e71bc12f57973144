// All exchanges of the run: how each endpoint did, and every one of them.
import { useMemo } from 'preact/hooks';
import { endpointOf, endpoints, isBad, withoutChancePort, type Endpoint } from './endpoints';
import { short } from './exchange';
import { statusText } from './status';
import { exchangeRows, exchangesLink, minutesLink, MOST_EXCHANGES, route } from './store';
import { bytes, count, duration, offset, whole } from './text';
import type { ExchangeRow, RunData } from './types';

const MOST_LINES = 500;
const ORDERS = ['longest', 'time', 'status', 'size', 'path', 'test'] as const;
const BY = {
  longest: (a: ExchangeRow, b: ExchangeRow) => b[2] - a[2],
  time: (a: ExchangeRow, b: ExchangeRow) => a[1] - b[1],
  status: (a: ExchangeRow, b: ExchangeRow) => (b[5] || 999) - (a[5] || 999),
  size: (a: ExchangeRow, b: ExchangeRow) => b[6] - a[6],
  path: (a: ExchangeRow, b: ExchangeRow) => short(a[4]).localeCompare(short(b[4])) || a[1] - b[1],
  test: (a: ExchangeRow, b: ExchangeRow) => a[0] - b[0] || a[1] - b[1],
};

export function Exchanges({ data }: { data: RunData }) {
  const params = route.value.params;
  const words = params.get('find') ?? '';
  const bad = params.get('bad') === 'yes';
  const unmet = params.get('checks') === 'failed';
  const host = params.get('host') ?? '';
  const endpoint = params.get('endpoint') ?? '';
  const order = ORDERS.find((one) => one === params.get('order')) ?? ORDERS[0];
  const { rows, lost } = exchangeRows(data);
  const table = useMemo(() => endpoints(rows).sort((a, b) => (b.p95 ?? -1) - (a.p95 ?? -1)), [rows.length]);
  const found = rows
    .filter((row) => (!bad || isBad(row)) && (!unmet || row[8] > 0) && (!host || hostOf(row[4]) === host) && (!endpoint || endpointOf(row) === endpoint) && matches(row, data, words.toLowerCase()))
    .sort(BY[order]);
  const hosts = useMemo(() => [...new Set(rows.map((row) => hostOf(row[4])))].sort(), [rows.length]);
  const go = (change: Record<string, string>) => {
    history.replaceState(null, '', exchangesLink({ find: words, bad: bad ? 'yes' : '', checks: unmet ? 'failed' : '', host, endpoint, order, ...change }));
    dispatchEvent(new HashChangeEvent('hashchange'));
  };
  return (
    <main class="exchanges">
      <h1>{count(data.exchanges, 'exchange')}</h1>
      {rows.length > 0 && <Totals rows={rows} />}
      {lost && (
        <p class="reason">A file that holds them is missing beside the page. Copy or unpack its folder as a whole.</p>
      )}
      {data.exchanges > MOST_EXCHANGES && <p class="reason">Only the first {whole(MOST_EXCHANGES)} are shown.</p>}
      <Endpoints table={table} chosen={endpoint} onChoose={(name) => go({ endpoint: name === endpoint ? '' : name })} />
      <div class="controls">
        <label class="find">
          <span class="unseen">Search addresses, methods, states and tests</span>
          <input type="search" placeholder="Search" value={words} onInput={(e) => go({ find: e.currentTarget.value })} />
        </label>
        <div class="filters">
          <button aria-pressed={bad} onClick={() => go({ bad: bad ? '' : 'yes' })}>
            not answered well <span class="dim">{whole(rows.filter(isBad).length)}</span>
          </button>
          <button aria-pressed={unmet} onClick={() => go({ checks: unmet ? '' : 'failed' })}>
            checks failed <span class="dim">{whole(rows.filter((row) => row[8] > 0).length)}</span>
          </button>
        </div>
        {hosts.length > 1 && (
          <label class="choice">
            Host{' '}
            <select value={host} onChange={(e) => go({ host: e.currentTarget.value })}>
              <option value="">all</option>
              {hosts.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </label>
        )}
        <label class="choice">
          Order{' '}
          <select value={order} onChange={(e) => go({ order: e.currentTarget.value })}>
            {ORDERS.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
      </div>
      <p class="dim found" role="status">
        {whole(found.length)} of {whole(rows.length)}
        {found.length > MOST_LINES && `, the first ${MOST_LINES} below`}
      </p>
      <table class="list">
        <tbody>
          {found.slice(0, MOST_LINES).map((row, index) => (
            <Line key={index} row={row} data={data} />
          ))}
        </tbody>
      </table>
    </main>
  );
}

function Totals({ rows }: { rows: ExchangeRow[] }) {
  const size = rows.reduce((all, row) => all + Math.max(0, row[6]), 0);
  const bad = rows.filter(isBad).length;
  const unmet = rows.filter((row) => row[8] > 0).length;
  return (
    <p class="dim totals">
      {bytes(size)} answered; {whole(bad)} not answered well; {whole(unmet)} did not hold what was checked
    </p>
  );
}

function Endpoints(props: { table: Endpoint[]; chosen: string; onChoose(name: string): void }) {
  return (
    <table class="endpoints">
      <thead>
        <tr>
          <th scope="col">Endpoint</th>
          <th scope="col">count</th>
          <th scope="col">median</th>
          <th scope="col">95 of 100 within</th>
          <th scope="col">not well</th>
          <th scope="col">checks failed</th>
          <th scope="col">bytes</th>
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
            <td data-name="count">{whole(one.count)}</td>
            <td data-name="median">{one.median === undefined ? '–' : duration(one.median)}</td>
            <td data-name="95 of 100 within">{one.p95 === undefined ? '–' : duration(one.p95)}</td>
            <td data-name="not well" class={one.bad > 0 ? 'failed' : 'dim'}>{one.bad === 0 ? '–' : `${Math.round((100 * one.bad) / one.count)} %`}</td>
            <td data-name="checks failed" class={one.unmet > 0 ? 'failed' : 'dim'}>{one.unmet === 0 ? '–' : whole(one.unmet)}</td>
            <td data-name="bytes" class="dim">{bytes(one.bytes)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Line({ row, data }: { row: ExchangeRow; data: RunData }) {
  const [place, at, took, method, url, status, size, failed, checks] = row;
  const test = data.rows[place];
  return (
    <tr class={isBad(row) ? 'bad' : ''}>
      <td class="time dim">{offset(at)}</td>
      <td class="status">{statusText(status)}</td>
      <td class="code">
        <b>{method}</b> {short(url)} {failed && <span class="dim">{failed}</span>}
        {checks > 0 && <span class="failed"> {count(checks, 'check')} failed</span>}
      </td>
      <td class="took">{took < 0 ? '' : duration(took)}</td>
      <td class="took dim">{size < 0 ? '' : bytes(size)}</td>
      <td class="of">
        <a href={minutesLink(test ? test.address : 'run')}>{test ? test.name : 'outside tests'}</a>
      </td>
    </tr>
  );
}

function hostOf(url: string): string {
  return /^[a-z][a-z0-9+.-]*:\/\/([^/?#]*)/i.exec(withoutChancePort(url))?.[1] ?? '';
}

function matches(row: ExchangeRow, data: RunData, words: string): boolean {
  if (!words) return true;
  const text = `${row[3]} ${row[4]} ${row[5]} ${row[7]} ${data.rows[row[0]]?.name ?? ''}`.toLowerCase();
  return words.split(/\s+/).every((word) => text.includes(word));
}
