// Puts rows together out of the columns that Columns.java writes. One shape for all rows: a browser is fast with those.
import type { Row } from './types';

type Column =
  | unknown[]
  /** Texts that repeat, each once, and which of them a row has. */
  | { of: unknown[]; is: number[] }
  /** What few rows have, by their positions. */
  | { at: number[]; value: unknown[] };

type Columns = Record<keyof Row, Column>;

export function rowsOf(text: string): Row[] {
  const columns = JSON.parse(text) as Columns;
  const count = (columns.id as string[]).length;
  const values = Object.fromEntries(Object.entries(columns).map(([name, column]) => [name, whole(column, count)])) as Record<keyof Row, unknown[]>;
  const rows: Row[] = [];
  for (let i = 0; i < count; i++) {
    const className = values.className[i] as string | undefined;
    rows.push({
      id: idOf(values.id[i] as string, className),
      name: values.name[i],
      rank: values.rank[i],
      at: values.at[i],
      duration: values.duration[i],
      outcome: values.outcome[i],
      className,
      path: values.path[i],
      module: values.module[i],
      tags: values.tags[i],
      worker: values.worker[i],
      thread: values.thread[i],
      message: values.message[i],
      reason: values.reason[i],
      rule: values.rule?.[i],
      attempts: values.attempts[i],
      superseded: values.superseded[i],
      recovered: values.recovered[i],
      why: values.why?.[i],
      difference: values.difference?.[i],
      attemptBefore: values.attemptBefore?.[i],
      container: values.container[i],
      brief: values.brief[i],
      source: values.source[i],
      about: values.about[i],
      blockedBy: values.blockedBy[i],
      before: values.before[i],
      fresh: values.fresh[i],
      anyway: values.anyway?.[i],
      data: values.data[i],
      set: values.set[i],
      values: values.values[i],
      found: values.found?.[i],
      failing: values.failing[i],
    } as unknown as Row);
  }
  return rows;
}

function whole(column: Column, count: number): unknown[] {
  if (Array.isArray(column)) return column;
  if ('is' in column) return column.is.map((number) => column.of[number]);
  const all = new Array<unknown>(count).fill(undefined);
  column.at.forEach((at, index) => (all[at] = column.value[index]));
  return all;
}

/** What stands before the dot of a short one is its class. */
function idOf(short: string, className = ''): string {
  return short[0] === '.' ? className + short.slice(1) : short.slice(1);
}

/** The test of a row, whichever attempt it is. */
export function keyOf(row: Row): string {
  return row.id.replace(/~\d+$/, '');
}
