// Which tests of the list somebody has marked, and which columns it shows.
import { signal } from '@preact/signals';
import { keyOf } from '../data/rows';
import type { Row } from '../data/types';

/** By the ids of their rows. */
export const selected = signal<ReadonlySet<string>>(new Set());

let last: string | undefined;

/** Marks a row or takes the mark away; `through` marks all between the one before and it as well, in the order of `rows`. */
export function mark(row: Row, rows: Row[], through: boolean): void {
  const marked = new Set(selected.value);
  const from = through && last !== undefined ? rows.findIndex((one) => one.id === last) : -1;
  const to = rows.indexOf(row);
  if (from >= 0) for (const one of rows.slice(Math.min(from, to), Math.max(from, to) + 1)) marked.add(one.id);
  else if (!marked.delete(row.id)) marked.add(row.id);
  last = row.id;
  selected.value = marked;
}

export function clear(): void {
  selected.value = new Set();
}

export const COLUMNS = ['tag', 'owner', 'severity', 'class', 'worker', 'id'] as const;
export type Column = (typeof COLUMNS)[number];

/** Those in an address, or the usual one. */
export function columnsIn(params: URLSearchParams): Column[] {
  const named = params.get('columns');
  if (named === null) return ['tag'];
  return COLUMNS.filter((column) => named.split(',').includes(column));
}

export function cell(row: Row, column: Exclude<Column, 'tag'>): string {
  switch (column) {
    case 'owner':
      return row.about?.owner ?? '';
    case 'severity':
      return row.about?.severity ?? '';
    case 'class':
      return row.className ?? row.path.join(' › ');
    case 'worker':
      return row.thread ?? row.worker;
    default:
      return keyOf(row);
  }
}
