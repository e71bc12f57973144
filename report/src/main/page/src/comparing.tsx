// Beside an exchange, another of the same request: of another attempt, another row, another test, or the earlier run.
import { createContext } from 'preact';
import { useMemo, useState } from 'preact/hooks';
import { compared } from './differences';
import { endpointOf } from './endpoints';
import { statusOf, statusText } from './status';
import { earlierFiles, exchangeRows, exchangesIn, keyOf, minutesFiles, ofRow } from './store';
import { count, duration, offset } from './text';
import type { Exchange, RunData } from './types';

const MOST_OTHERS = 60;

/** The test whose minutes are open. */
export const Open = createContext<{ data: RunData; place: number } | undefined>(undefined);

interface Other {
  label: string;
  group: string;
  /** Undefined while its file is on its way. */
  exchange(): Exchange | undefined;
}

export function Comparing({ exchange, data, place }: { exchange: Exchange; data: RunData; place: number }) {
  const [chosen, setChosen] = useState(0);
  const others = [...earlier(exchange, data, place), ...ofThisRun(exchange, data, place)];
  if (others.length === 0) return <p class="dim">There is no other exchange of this request.</p>;
  const other = others[chosen]!;
  const there = other.exchange();
  const groups = [...new Set(others.map((one) => one.group))];
  return (
    <section class="comparing" aria-label="Comparison">
      <label class="choice">
        Compared with{' '}
        <select value={chosen} onChange={(e) => setChosen(Number(e.currentTarget.value))}>
          {groups.map((group) => (
            <optgroup key={group} label={group}>
              {others.map((one, index) => one.group === group && <option key={index} value={index}>{one.label}</option>)}
            </optgroup>
          ))}
        </select>
      </label>
      {there ? <Differences here={exchange} there={there} /> : <p class="dim">Its file is on its way, or missing.</p>}
    </section>
  );
}

function Differences({ here, there }: { here: Exchange; there: Exchange }) {
  const { differences, more, same, passedOver } = useMemo(() => compared(here, there), [here, there]);
  return (
    <table class="differences">
      <caption>
        {differences.length === 0 ? 'Nothing is different' : count(differences.length, 'difference')}; {count(same, 'value')} the same
        {more > 0 && ` and ${count(more, 'difference')} more`}
        {passedOver.length > 0 && `; not compared, being different each time: ${passedOver.join(', ')}`}
      </caption>
      <thead>
        <tr>
          <th scope="col">at</th>
          <th scope="col">this one</th>
          <th scope="col">the other</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">time</th>
          <td data-name="this one">{here.took !== undefined && duration(here.took)}</td>
          <td data-name="the other">
            {there.took !== undefined && duration(there.took)}{' '}
            <span class="dim">{here.took !== undefined && there.took !== undefined && slower(here.took, there.took)}</span>
          </td>
        </tr>
        {differences.map((one) => (
          <tr key={one.what}>
            <th scope="row">{one.what}</th>
            <td data-name="this one">{one.here === undefined ? <i class="dim">not there</i> : <ins>{one.here}</ins>}</td>
            <td data-name="the other">{one.there === undefined ? <i class="dim">not there</i> : <del>{one.there}</del>}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Small differences are noise. */
function slower(here: number, there: number): string {
  if (Math.max(here, there) < 2 * Math.min(here, there)) return '';
  const times = (Math.max(here, there) / Math.max(1, Math.min(here, there))).toFixed(1);
  return here > there ? `this one took ${times} times as long` : `it took ${times} times as long`;
}

function asRow(exchange: Exchange): string {
  return endpointOf([0, 0, 0, exchange.method, exchange.url, 0, 0, '', 0]);
}

/** Those of the same test, the one at the same place among them first. */
function earlier(exchange: Exchange, data: RunData, place: number): Other[] {
  if (!data.earlier) return [];
  const then = ofRow(earlierFiles, data, place);
  if (!then) return [];
  const endpoint = asRow(exchange);
  const siblings = exchangesIn(ofRow(minutesFiles, data, place)?.entries ?? []).filter((one) => asRow(one) === endpoint);
  const found = then.filter((one) => asRow(one) === endpoint);
  const nth = Math.min(Math.max(0, siblings.findIndex((one) => one.at === exchange.at)), found.length - 1);
  const ordered = nth > 0 ? [found[nth]!, ...found.filter((_, index) => index !== nth)] : found;
  return ordered.map((one) => ({
    label: `the same test: ${statusOf(one)}${one.took === undefined ? '' : ', ' + duration(one.took)}`,
    group: `the earlier run ${data.earlier}`,
    exchange: () => one,
  }));
}

function ofThisRun(exchange: Exchange, data: RunData, place: number): Other[] {
  const endpoint = asRow(exchange);
  const open = data.rows[place]!;
  const found: Other[] = [];
  for (const one of exchangeRows(data).rows) {
    const [at, moment, took, , , status] = one;
    const row = data.rows[at];
    if (!row || (at === place && moment === exchange.at) || endpointOf(one) !== endpoint) continue;
    const group = at === place ? 'this test' : keyOf(row) === keyOf(open) ? 'other attempts' : row.set !== undefined && row.set === open.set ? 'other rows' : 'other tests';
    found.push({
      group,
      label: `${group === 'this test' ? offset(moment - open.at) : row.name}: ${statusText(status)}${took < 0 ? '' : ', ' + duration(took)}`,
      exchange: () => exchangeOf(data, at, moment),
    });
  }
  const order = ['other attempts', 'other rows', 'this test', 'other tests'];
  return found.sort((a, b) => order.indexOf(a.group) - order.indexOf(b.group)).slice(0, MOST_OTHERS);
}

function exchangeOf(data: RunData, place: number, at: number): Exchange | undefined {
  return exchangesIn(ofRow(minutesFiles, data, place)?.entries ?? []).find((one) => one.at === at);
}
