// What ran on which thread, and how well threads were used: the computation of the workers view.
import { needsAttention } from '../data/outcomes';
import type { Outcome, Row } from '../data/types';

/** One thread of one worker. */
export interface Lane {
  worker: string;
  thread: string;
  /** In the order of time. */
  rows: Row[];
  /** Microseconds in which a test was running. */
  busy: number;
  /** The longest time in which none was, between two of them. */
  gap: number;
  gapAt: number;
}

/** Tests of a thread that lie closer together than can be told apart. */
export interface Bar {
  from: number;
  to: number;
  outcome: Outcome;
  rows: Row[];
}

export function lanesOf(rows: Row[]): Lane[] {
  const lanes = new Map<string, Row[]>();
  for (const row of rows) {
    if (row.container) continue;
    const key = `${row.worker}\n${row.thread ?? ''}`;
    const lane = lanes.get(key);
    if (lane) lane.push(row);
    else lanes.set(key, [row]);
  }
  return [...lanes].map(([key, members]) => lane(key, members.toSorted((a, b) => a.at - b.at))).toSorted((a, b) => a.rows[0]!.at - b.rows[0]!.at);
}

function lane(key: string, rows: Row[]): Lane {
  const [worker = '', thread = ''] = key.split('\n');
  let busy = 0;
  let end = rows[0]!.at;
  let gap = 0;
  let gapAt = 0;
  for (const row of rows) {
    if (row.at - end > gap) {
      gap = row.at - end;
      gapAt = end;
    }
    // A test inside another, as of a suite in a suite, keeps the thread no busier.
    busy += Math.max(0, row.at + row.duration - Math.max(end, row.at));
    end = Math.max(end, row.at + row.duration);
  }
  return { worker, thread, rows, busy, gap, gapAt };
}

/** @param least how long a bar is at the least, in microseconds: what a pixel stands for */
export function barsOf(rows: Row[], from: number, to: number, least: number): Bar[] {
  const bars: Bar[] = [];
  for (const row of rows) {
    const end = row.at + row.duration;
    if (end < from || row.at > to) continue;
    const last = bars.at(-1);
    if (last && row.at < last.from + least && end < last.from + 2 * least) {
      last.rows.push(row);
      last.to = Math.max(last.to, end);
      if (needsAttention(row.outcome)) last.outcome = row.outcome;
    } else bars.push({ from: row.at, to: Math.max(end, row.at + least), outcome: row.outcome, rows: [row] });
  }
  return bars;
}
