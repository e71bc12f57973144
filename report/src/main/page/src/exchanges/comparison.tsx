// Beside an exchange, another of the same request: of another attempt, another row, another test, or the baseline run.
import { createContext } from 'preact';
import { useMemo, useState } from 'preact/hooks';
import { compared } from './differences';
import { COLUMN, endpointOf, namesOf } from './endpoints';
import { statusOf, statusText } from '../marks/status';
import { baselineFiles, exchangeRows, testFiles, ofRow } from '../data/loaded';
import { exchangesIn } from '../data/inside';
import { keyOf } from '../data/rows';
import { count, durationText, offset } from '../words/text';
import type { Exchange, RunData } from '../data/types';
import { known, t } from '../words/texts';

const MAX_OTHERS = 60;

/** The test that is open. */
export const Open = createContext<{ data: RunData; position: number } | undefined>(undefined);

interface Other {
  label: string;
  group: string;
  /** Undefined while its file is on its way. */
  exchange(): Exchange | undefined;
}

export function Comparison({ exchange, data, position }: { exchange: Exchange; data: RunData; position: number }) {
  const [chosen, setChosen] = useState(0);
  const others = [...baseline(exchange, data, position), ...ofThisRun(exchange, data, position)];
  if (others.length === 0) return <p class="dim">{t('There is no other exchange of this request.')}</p>;
  const other = others[chosen]!;
  const there = other.exchange();
  const groups = [...new Set(others.map((one) => one.group))];
  return (
    <section class="comparison" aria-label={t('Comparison')}>
      <label class="choice">
        {t('Compared with')}{' '}
        <select value={chosen} onChange={(e) => setChosen(Number(e.currentTarget.value))}>
          {groups.map((group) => (
            <optgroup key={group} label={known(group)}>
              {others.map((one, index) => one.group === group && <option key={index} value={index}>{one.label}</option>)}
            </optgroup>
          ))}
        </select>
      </label>
      {there ? <Differences here={exchange} there={there} /> : <p class="dim">{t('Its file is on its way, or missing.')}</p>}
    </section>
  );
}

function Differences({ here, there }: { here: Exchange; there: Exchange }) {
  const { differences, more, same, passedOver } = useMemo(() => compared(here, there), [here, there]);
  return (
    <table class="differences">
      <caption>
        {differences.length === 0 ? t('Nothing is different') : count(differences.length, 'difference')}; {t('{0} the same', count(same, 'value'))}
        {more > 0 && ' ' + t('and {0} more', count(more, 'difference'))}
        {passedOver.length > 0 && t('; not compared, being different each time: {0}', passedOver.join(', '))}
      </caption>
      <thead>
        <tr>
          <th scope="col">{t('at')}</th>
          <th scope="col">{t('this one')}</th>
          <th scope="col">{t('the other')}</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">{t('time')}</th>
          <td data-name={t('this one')}>{here.duration !== undefined && durationText(here.duration)}</td>
          <td data-name={t('the other')}>
            {there.duration !== undefined && durationText(there.duration)}{' '}
            <span class="dim">{here.duration !== undefined && there.duration !== undefined && slower(here.duration, there.duration)}</span>
          </td>
        </tr>
        {differences.map((one) => (
          <tr key={one.what}>
            <th scope="row">{one.what}</th>
            <td data-name={t('this one')}>{one.here === undefined ? <i class="dim">{t('not there')}</i> : <ins>{one.here}</ins>}</td>
            <td data-name={t('the other')}>{one.there === undefined ? <i class="dim">{t('not there')}</i> : <del>{one.there}</del>}</td>
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
  return here > there ? t('this one was {0} times as long', times) : t('it was {0} times as long', times);
}

function endpointOfExchange(exchange: Exchange): string {
  return endpointOf(exchange.method, exchange.url);
}

/** Those of the same test, the one at the same position among them first. */
function baseline(exchange: Exchange, data: RunData, position: number): Other[] {
  if (!data.baseline) return [];
  const then = ofRow(baselineFiles, data, position);
  if (!then) return [];
  const endpoint = endpointOfExchange(exchange);
  const siblings = exchangesIn(ofRow(testFiles, data, position)?.entries ?? []).filter((one) => endpointOfExchange(one) === endpoint);
  const found = exchangesIn(then.entries).filter((one) => endpointOfExchange(one) === endpoint);
  const nth = Math.min(Math.max(0, siblings.findIndex((one) => one.id === exchange.id)), found.length - 1);
  const ordered = nth > 0 ? [found[nth]!, ...found.filter((_, index) => index !== nth)] : found;
  return ordered.map((one) => ({
    label: `${t('the same test')}: ${statusOf(one)}${one.duration === undefined ? '' : ', ' + durationText(one.duration)}`,
    group: t('the baseline, {0}', data.baseline!),
    exchange: () => one,
  }));
}

function ofThisRun(exchange: Exchange, data: RunData, position: number): Other[] {
  const open = data.rows[position]!;
  const found: Other[] = [];
  const { rows } = exchangeRows(data);
  const names = namesOf(rows);
  const endpoint = names[rows.findIndex((one) => one[COLUMN.row] === position && one[COLUMN.id] === exchange.id)] ?? endpointOfExchange(exchange);
  for (const [index, one] of rows.entries()) {
    const [at, id, moment, duration, , , status] = one;
    const row = data.rows[at];
    if (!row || (at === position && id === exchange.id) || names[index] !== endpoint) continue;
    const group = at === position ? 'this test' : keyOf(row) === keyOf(open) ? 'other attempts' : row.set !== undefined && row.set === open.set ? 'other rows' : 'other tests';
    found.push({
      group,
      label: `${group === 'this test' ? offset(moment - open.at) : row.name}: ${statusText(status)}${duration < 0 ? '' : ', ' + durationText(duration)}`,
      exchange: () => exchangeOf(data, at, id),
    });
  }
  const order = ['other attempts', 'other rows', 'this test', 'other tests'];
  return found.sort((a, b) => order.indexOf(a.group) - order.indexOf(b.group)).slice(0, MAX_OTHERS);
}

function exchangeOf(data: RunData, position: number, id: number): Exchange | undefined {
  return exchangesIn(ofRow(testFiles, data, position)?.entries ?? []).find((one) => one.id === id);
}
