// All tests: search, filter, group, sort. Only the lines in sight are in the document, so that 100,000 are no more work
// than 50.
import { useSignal } from '@preact/signals';
import { useEffect, useMemo, useRef } from 'preact/hooks';
import { copied } from './copied';
import { FILTERS, filtersIn, isFiltered, keeps, type Filters } from './filters';
import { GROUPS, groupsOf, type Group } from './groups';
import { onKey, searchWanted } from '../data/keys';
import { Lines, type Line } from './lines';
import { Mark } from '../marks/mark';
import { clear, COLUMNS, columnsIn, selected, type Column } from './selection';
import { RowsToCome } from '../marks/rowsToCome';
import { RowSearch } from './search';
import { allPieces, failureTexts, rowsLoaded } from '../data/loaded';
import { isWhole } from '../data/types';
import { gravity, needsAttention, outcomesIn, outcomeText } from '../data/outcomes';
import { route, testsLink } from '../data/route';
import { count, whole } from '../words/text';
import type { Outcome, Row, RunData } from '../data/types';
import { known, t } from '../words/texts';

const ORDERS = ['time', 'failures first', 'longest', 'name'] as const;
type Order = (typeof ORDERS)[number];

export function Tests({ data }: { data: RunData }) {
  if (rowsLoaded.value !== 'here' && data.rows.length === 0) return <RowsToCome />;
  return <AllTests data={data} />;
}

function AllTests({ data }: { data: RunData }) {
  const params = route.value.params;
  const group = oneOf(GROUPS, params.get('group'));
  const order = oneOf(ORDERS, params.get('order'));
  const filters = filtersIn(params);
  const words = params.get('find') ?? '';
  const columns = columnsIn(params);
  const rows = useMemo(() => data.rows.filter((row) => !row.superseded), [data.rows]); // earlier attempts are inside their tests
  const search = useSearch(data, rows);
  const found = useMemo(() => find(rows, search, filters, words, data), [rows, search, words, JSON.stringify(filters)]);
  const lines = useMemo(() => arrange(found, rows, data, group, order), [found, rows, group, order]);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => onKey('/', () => field.current?.focus()), []);
  useEffect(() => {
    if (searchWanted.value) requestAnimationFrame(() => field.current?.focus()); // after the view itself was given the focus
    searchWanted.value = false;
  }, []);

  const go = (change: Record<string, string>) => {
    const now: Record<string, string> = { find: words, ...filters, group, order, columns: columns.join(','), ...change };
    if (now['group'] === GROUPS[0]) now['group'] = '';
    if (now['order'] === ORDERS[0]) now['order'] = '';
    if (now['columns'] === 'tag') now['columns'] = '';
    else if (now['columns'] === '') now['columns'] = 'none';
    history.replaceState(null, '', testsLink(now));
    dispatchEvent(new HashChangeEvent('hashchange'));
  };

  return (
    <main class="tests">
      <h1 class="visually-hidden">{t('Tests')}</h1>
      <div class="controls">
        <label class="find">
          <span class="visually-hidden">{t('Search names, classes, tags, data, messages, and what was recorded of failures')}</span>
          <input ref={field} type="search" placeholder={t('Search  ( / )')} value={words} onInput={(e) => go({ find: e.currentTarget.value })} />
        </label>
        <Choice label={t('Group by')} options={GROUPS.filter((one) => (one !== 'module' || rows.some((row) => row.module)) && (one !== 'label' || data.rules))} value={group} onChange={(value) => go({ group: value })} />
        <Choice label={t('Order')} options={ORDERS} value={order} onChange={(value) => go(value === 'time' ? { order: value } : { order: value, group: 'nothing' })} />
        <Outcomes data={data} filters={filters} go={go} />
      </div>
      <div class="found">
        <span class="dim" role="status">
          {counted(found, data)}
        </span>
        <Words data={data} filters={filters} go={go} />
        <Columns chosen={columns} onChange={(now) => go({ columns: now.join(',') })} />
        <Copying data={data} found={found} />
      </div>
      {rowsLoaded.value === 'lost' && <RowsToCome />}
      <Lines lines={lines} longest={longestOf(found)} inClass={group === 'class'} columns={columns} />
      {found.length === 0 && <p class="empty">{t('Nothing here matches. Take a filter away, or search for less.')}</p>}
    </main>
  );
}

/** What is asked for most, whatever the outcome is called. */
const QUICK: { name: 'failing' | 'flaky' | 'news'; value: string; count(data: RunData): number }[] = [
  { name: 'failing', value: 'failing', count: (data) => outcomesIn(data).reduce((sum, outcome) => (needsAttention(outcome) ? sum + data.counts[outcome]! : sum), 0) },
  { name: 'news', value: 'new', count: (data) => data.news?.tests ?? 0 },
  { name: 'flaky', value: 'flaky', count: (data) => data.allFlaky },
];

/** Filters by outcome, each a button that says how many tests it has. */
function Outcomes({ data, filters, go }: { data: RunData; filters: Filters; go(change: Record<string, string>): void }) {
  const chosen = (filters.outcome ?? '').split(',').filter(Boolean);
  const toggle = (outcome: Outcome) =>
    go({ outcome: (chosen.includes(outcome) ? chosen.filter((one) => one !== outcome) : [...chosen, outcome]).join(',') });
  return (
    <div class="filters" role="group" aria-label={t('Outcomes')}>
      {QUICK.filter(({ count }) => count(data) > 0).map(({ name, value, count }) => (
        <button key={name} class="quick" aria-pressed={filters[name] === value} onClick={() => go({ [name]: filters[name] === value ? '' : value })}>
          {known(value)} <span class="dim">{whole(count(data))}</span>
        </button>
      ))}
      {outcomesIn(data).map((outcome) => (
        <button key={outcome} aria-pressed={chosen.includes(outcome)} onClick={() => toggle(outcome)}>
          <Mark outcome={outcome} /> {outcomeText(outcome)} <span class="dim">{whole(data.counts[outcome]!)}</span>
        </button>
      ))}
    </div>
  );
}

/** The other filters, each a word that a click removes. */
function Words({ data, filters, go }: { data: RunData; filters: Filters; go(change: Record<string, string>): void }) {
  const shown = (name: keyof Filters) => (name === 'reason' ? (data.reasons.find((one) => isWhole(one) && one.id === filters.reason)?.title ?? filters.reason) : filters[name]);
  return (
    <>
      {FILTERS.filter((name) => !['outcome', 'failing', 'flaky', 'news'].includes(name) && filters[name]).map((name) => (
        <button key={name} class="word" aria-label={t('Remove the filter {0}: {1}', known(name), shown(name) ?? '')} onClick={() => go({ [name]: '' })}>
          {name === filters[name] ? known(name) : `${known(name)}: ${shown(name)}`} ×
        </button>
      ))}
    </>
  );
}

/** What was found, for elsewhere. */
function Copying({ data, found }: { data: RunData; found: Row[] }) {
  const marked = found.filter((row) => selected.value.has(row.id));
  if (found.length === 0) return null;
  return (
    <span class="copying dim">
      {marked.length > 0 && (
        <>
          <b role="status">{t('{0} selected', whole(marked.length))}</b>
          <button class="quiet" onClick={clear}>
            {t('clear')}
          </button>
        </>
      )}
      {t('copy')}{' '}
      {copied.map(({ name, text }) => (
        <button key={name} class="quiet" onClick={() => void navigator.clipboard.writeText(text(marked.length > 0 ? marked : found, data))}>
          {t(name)}
        </button>
      ))}
    </span>
  );
}

/** Which columns the list has, beside the name and the time. */
function Columns({ chosen, onChange }: { chosen: Column[]; onChange(now: Column[]): void }) {
  return (
    <details class="choose-columns">
      <summary>{t('Columns')}</summary>
      <div>
        {COLUMNS.map((column) => (
          <label key={column}>
            <input
              type="checkbox"
              checked={chosen.includes(column)}
              onChange={() => onChange(COLUMNS.filter((one) => (one === column ? !chosen.includes(one) : chosen.includes(one))))}
            />{' '}
            {known(column)}
          </label>
        ))}
      </div>
    </details>
  );
}

function counted(found: Row[], data: RunData): string {
  const tests = found.reduce((sum, row) => (row.container ? sum : sum + 1), 0);
  const all = data.tests;
  const containers = found.length - tests;
  const more = containers > 0 ? t(', and {0} that broke', count(containers, 'class or set-up')) : '';
  return (tests === all ? count(tests, 'test') : t('{0} of {1}', whole(tests), count(all, 'test'))) + more;
}

const BEFORE_SEARCH = 200;

/** Made in moments when nobody waits; first of the rows, then with what was recorded of failures. */
function useSearch(data: RunData, rows: Row[]): RowSearch {
  const wanted = useSignal(false);
  const file = wanted.value ? failureTexts.get('0').value : undefined;
  const pieces = file?.state === 'here' ? allPieces(file.value) : undefined;
  const search = useMemo(() => {
    if (file?.state !== 'here' || !pieces) return new RowSearch(rows, () => undefined, []);
    const positions = new Map(data.rows.map((row, position) => [row, position]));
    const texts = new Map(file.value.texts.map(([position, text, ...shared]) => [position, { text, shared }]));
    return new RowSearch(rows, (index) => texts.get(positions.get(rows[index]!)!), pieces);
  }, [rows, file?.state, pieces !== undefined]);
  useEffect(() => {
    let timer = setTimeout(function more() {
      if (search.prepare()) timer = setTimeout(more, 10);
      else wanted.value = true;
    }, BEFORE_SEARCH);
    return () => clearTimeout(timer);
  }, [search]);
  return search;
}

function Choice(props: { label: string; options: readonly string[]; value: string; onChange(value: string): void }) {
  return (
    <label class="choice">
      {props.label}{' '}
      <select value={props.value} onChange={(e) => props.onChange(e.currentTarget.value)}>
        {props.options.map((option) => (
          <option key={option} value={option}>
            {known(option)}
          </option>
        ))}
      </select>
    </label>
  );
}

function find(rows: Row[], search: RowSearch, filters: Filters, words: string, data: RunData): Row[] {
  const all = words.toLowerCase().split(/\s+/).filter(Boolean);
  const hits = all.length > 0 ? search.find(all).map((index) => rows[index]!) : rows;
  return isFiltered(filters) ? hits.filter((row) => keeps(filters, row, data)) : hits;
}

function arrange(rows: Row[], all: Row[], data: RunData, group: Group, order: Order): Line[] {
  const sorted = order === 'time' ? rows : rows.toSorted(COMPARE[order]);
  if (group === 'nothing') return sorted.map((row) => ({ row }));
  const groups = new Map<string, Row[]>();
  for (const row of sorted)
    for (const name of groupsOf(row, data, group)) {
      const members = groups.get(name);
      if (members) members.push(row);
      else groups.set(name, [row]);
    }
  const sizes = new Map<string, number>();
  if (rows.length < all.length) for (const row of all) for (const name of groupsOf(row, data, group)) sizes.set(name, (sizes.get(name) ?? 0) + 1);
  return [...groups].flatMap(([name, members]): Line[] => [
    { group: name, rows: members, size: sizes.get(name) ?? members.length },
    ...members.map((row) => ({ row })),
  ]);
}

const COMPARE: Record<Exclude<Order, 'time'>, (a: Row, b: Row) => number> = {
  'failures first': (a, b) => gravity(b.outcome) - gravity(a.outcome),
  longest: (a, b) => b.duration - a.duration,
  name: (a, b) => a.rank - b.rank,
};

function longestOf(rows: Row[]): number {
  return rows.reduce((longest, row) => Math.max(longest, row.duration), 1);
}

function oneOf<T extends string>(options: readonly T[], value: string | null): T {
  return options.find((option) => option === value) ?? options[0]!;
}
