// All tests: search, filter, group, sort. Only the lines in sight are in the document, so that 100,000 are no more work
// than 50.
import { useComputed, useSignal, useSignalEffect } from '@preact/signals';
import { useEffect, useRef } from 'preact/hooks';
import { onKey } from './keys';
import { Mark } from './mark';
import { needsAttention, outcomesIn, outcomeText, route, testLink, testsLink } from './store';
import { count, durationText, offset, whole } from './text';
import type { Outcome, Row, RunData } from './types';

const GROUPS = ['class', 'outcome', 'reason', 'tag', 'owner', 'worker', 'nothing'] as const;
const ORDERS = ['time', 'longest', 'name'] as const;
type Group = (typeof GROUPS)[number];
type Order = (typeof ORDERS)[number];

const ROW_HEIGHT = 54;
const GROUP_HEIGHT = 58;

type Line = { group: string; rows: Row[] } | { row: Row };

export function Tests({ data }: { data: RunData }) {
  const params = route.value.params;
  const group = oneOf(GROUPS, params.get('group'));
  const order = oneOf(ORDERS, params.get('order'));
  const outcomes = (params.get('outcome') ?? '').split(',').filter(Boolean) as Outcome[];
  const words = params.get('find') ?? '';
  const news = params.get('news') === 'new' ? 'new' : '';
  const tests = data.rows.filter((row) => !row.superseded); // earlier attempts are inside their tests
  const found = tests.filter((row) => (!news || row.fresh) && matches(row, outcomes, words.toLowerCase()));
  const lines = arrange(found, data, group, order);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => onKey('/', () => field.current?.focus()), []);

  const go = (change: Record<string, string>) => {
    const now = { find: words, outcome: outcomes.join(','), news, group, order, ...change };
    if (now.group === GROUPS[0]) now.group = '' as Group;
    if (now.order === ORDERS[0]) now.order = '' as Order;
    history.replaceState(null, '', testsLink(now));
    dispatchEvent(new HashChangeEvent('hashchange'));
  };
  const toggle = (outcome: Outcome) =>
    go({ outcome: (outcomes.includes(outcome) ? outcomes.filter((o) => o !== outcome) : [...outcomes, outcome]).join(',') });

  return (
    <main class="tests">
      <div class="controls">
        <label class="find">
          <span class="visually-hidden">Search names, classes, tags, data and messages</span>
          <input ref={field} type="search" placeholder="Search  ( / )" value={words} onInput={(e) => go({ find: e.currentTarget.value })} />
        </label>
        <div class="filters" role="group" aria-label="Outcomes">
          {outcomesIn(data)
            .map((outcome) => (
              <button key={outcome} aria-pressed={outcomes.includes(outcome)} onClick={() => toggle(outcome)}>
                <Mark outcome={outcome} /> {outcomeText(outcome)} <span class="dim">{whole(data.counts[outcome]!)}</span>
              </button>
            ))}
          {news && (
            <button aria-pressed={true} onClick={() => go({ news: '' })}>
              new ×
            </button>
          )}
        </div>
        <Choice label="Group by" options={GROUPS} value={group} onChange={(value) => go({ group: value })} />
        <Choice label="Order" options={ORDERS} value={order} onChange={(value) => go({ order: value })} />
      </div>
      <p class="dim found" role="status">
        {found.length === tests.length ? count(found.length, 'row') : `${whole(found.length)} of ${count(tests.length, 'row')}`}
      </p>
      <Lines lines={lines} longest={longestOf(found)} inClass={group === 'class'} />
      {found.length === 0 && <p class="empty">Nothing here matches. Take a filter away, or search for less.</p>}
    </main>
  );
}

function Choice(props: { label: string; options: readonly string[]; value: string; onChange(value: string): void }) {
  return (
    <label class="choice">
      {props.label}{' '}
      <select value={props.value} onChange={(e) => props.onChange(e.currentTarget.value)}>
        {props.options.map((option) => (
          <option key={option}>{option}</option>
        ))}
      </select>
    </label>
  );
}

function Lines({ lines, longest, inClass }: { lines: Line[]; longest: number; inClass: boolean }) {
  const box = useRef<HTMLDivElement>(null);
  const scrolled = useSignal(0);
  const height = useSignal(innerHeight);
  useSignalEffect(() => {
    const measure = () => {
      scrolled.value = -(box.current?.getBoundingClientRect().top ?? 0);
      height.value = innerHeight;
    };
    measure();
    addEventListener('scroll', measure, { passive: true });
    addEventListener('resize', measure);
    return () => {
      removeEventListener('scroll', measure);
      removeEventListener('resize', measure);
    };
  });
  const printing = useComputed(() => matchMedia('print').matches);

  const tops: number[] = [];
  let total = 0;
  for (const line of lines) {
    tops.push(total);
    total += 'row' in line ? ROW_HEIGHT : GROUP_HEIGHT;
  }
  const from = Math.max(0, firstBelow(tops, scrolled.value) - 8);
  const to = printing.value ? lines.length : Math.min(lines.length, firstBelow(tops, scrolled.value + height.value) + 8);
  return (
    <div ref={box} class="lines" style={{ height: `${total}px` }}>
      <div style={{ transform: `translateY(${tops[from] ?? 0}px)` }}>
        {lines.slice(from, to).map((line) =>
          'row' in line ? (
            <RowLine key={line.row.id} row={line.row} longest={longest} inClass={inClass} />
          ) : (
            <GroupLine key={'group ' + line.group} name={line.group} rows={line.rows} />
          ),
        )}
      </div>
    </div>
  );
}

function GroupLine({ name, rows }: { name: string; rows: Row[] }) {
  const failing = rows.filter((row) => needsAttention(row.outcome)).length;
  return (
    <div class="group-line">
      <h2>{name}</h2>
      <span class="dim">
        {failing === 0 ? count(rows.length, 'test') : `${whole(failing)} of ${count(rows.length, 'test')} did not pass`}
      </span>
    </div>
  );
}

function RowLine({ row, longest, inClass }: { row: Row; longest: number; inClass: boolean }) {
  const attempts = row.attempts ? (row.recovered ? `Flaky: passed on attempt ${row.attempts}. ` : `Attempt ${row.attempts} of ${row.attempts}. `) : '';
  const under = attempts + (row.message ?? '') || (row.data ?? (inClass ? '' : row.path.join(' › ')));
  return (
    <a class={`row-line ${row.outcome}`} href={testLink(row.id)}>
      <span class="time">{offset(row.at)}</span>
      <Mark outcome={row.outcome} />
      <span class="what">
        <span class="name">{row.name}</span>
        {under && <span class="dim under">{under}</span>}
      </span>
      <span class="tags">
        {row.tags?.map((tag) => (
          <span key={tag}>{tag}</span>
        ))}
      </span>
      <span class="duration">
        {durationText(row.duration)}
        <span class="bar" style={{ width: `${Math.max(1, (100 * row.duration) / longest)}%` }} />
      </span>
    </a>
  );
}

function matches(row: Row, outcomes: Outcome[], words: string): boolean {
  if (outcomes.length > 0 && !outcomes.includes(row.outcome)) return false;
  if (!words) return true;
  const text = [row.name, ...row.path, row.className, ...(row.tags ?? []), row.message, row.data, row.thread, row.about?.text, row.about?.owner, row.about?.severity, ...(row.about?.links ?? []).map((l) => l.name)]
    .join('\n')
    .toLowerCase();
  return words.split(/\s+/).every((word) => text.includes(word));
}

function arrange(rows: Row[], data: RunData, group: Group, order: Order): Line[] {
  const sorted = order === 'time' ? rows : rows.toSorted(COMPARE[order]);
  if (group === 'nothing') return sorted.map((row) => ({ row }));
  const groups = new Map<string, Row[]>();
  for (const row of sorted)
    for (const name of groupsOf(row, data, group)) {
      const members = groups.get(name);
      if (members) members.push(row);
      else groups.set(name, [row]);
    }
  return [...groups].flatMap(([name, members]): Line[] => [
    { group: name, rows: members },
    ...members.map((row) => ({ row })),
  ]);
}

const COMPARE: Record<Exclude<Order, 'time'>, (a: Row, b: Row) => number> = {
  longest: (a, b) => b.duration - a.duration,
  name: (a, b) => a.name.localeCompare(b.name, 'en'),
};

function groupsOf(row: Row, data: RunData, group: Group): string[] {
  switch (group) {
    case 'class':
      return [row.path.join(' › ') || row.className || row.name];
    case 'outcome':
      return [outcomeText(row.outcome)];
    case 'reason':
      return [row.reason === undefined ? 'No reason' : data.reasons[row.reason]!.title];
    case 'tag':
      return row.tags ?? ['No tag'];
    case 'owner':
      return [row.about?.owner ?? 'No owner'];
    case 'worker':
      return [row.thread ? `${row.worker}, ${row.thread}` : row.worker];
    default:
      return [''];
  }
}

function longestOf(rows: Row[]): number {
  return rows.reduce((longest, row) => Math.max(longest, row.duration), 1);
}

function firstBelow(tops: number[], y: number): number {
  let low = 0;
  let high = tops.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (tops[middle]! < y) low = middle + 1;
    else high = middle;
  }
  return low;
}

function oneOf<T extends string>(options: readonly T[], value: string | null): T {
  return options.find((option) => option === value) ?? options[0]!;
}
