// How each endpoint did: its exchanges put together, whatever numbers stand in their addresses.
import type { ExchangeRow } from './types';

export interface Endpoint {
  name: string;
  count: number;
  /** Undefined where nobody knows how long any of them took. */
  median: number | undefined;
  /** The time that 95 of 100 stay within: the smallest that at least so many do. */
  p95: number | undefined;
  bad: number;
  /** How many of its answers did not hold what a check asked. */
  unmet: number;
  bytes: number;
}

export function isBad(row: ExchangeRow): boolean {
  return row[7] !== '' || row[5] >= 400 || row[5] < 0;
}

/** Without a port on the loopback address, which is another each time. */
export function withoutChancePort(url: string): string {
  return url.replace(/^((?:[a-z][a-z0-9+.-]*:\/\/)?(?:127\.0\.0\.1|localhost|\[::1\])):\d+/i, '$1');
}

/** `GET orto.example/api/plots/{}`: parts of the path that are numbers or long identifiers are left open. */
export function endpointOf([, , , method, url]: ExchangeRow): string {
  const [, rest = url] = /^[a-z][a-z0-9+.-]*:\/\/(.*)$/i.exec(url) ?? [];
  const path = withoutChancePort(rest.replace(/[?#].*$/, ''));
  return method + ' ' + path.replace(/\/(\d+|[0-9a-f]{8,}(-[0-9a-f]{4,})*)(?=\/|$)/gi, '/{}');
}

export function endpoints(rows: ExchangeRow[]): Endpoint[] {
  const groups = new Map<string, ExchangeRow[]>();
  for (const row of rows) {
    const name = endpointOf(row);
    const group = groups.get(name);
    if (group) group.push(row);
    else groups.set(name, [row]);
  }
  return [...groups].map(([name, group]) => {
    const times = group.map((row) => row[2]).filter((time) => time >= 0).sort((a, b) => a - b);
    return {
      name,
      count: group.length,
      median: middle(times),
      p95: percentile(times, 95),
      bad: group.filter(isBad).length,
      unmet: group.filter((row) => row[8] > 0).length,
      bytes: group.reduce((all, row) => all + Math.max(0, row[6]), 0),
    };
  });
}

/** Of an even count the mean of the two in the middle. */
function middle(sorted: number[]): number | undefined {
  if (sorted.length === 0) return undefined;
  const half = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[half]! : Math.round((sorted[half - 1]! + sorted[half]!) / 2);
}

/** The nearest rank: the smallest value that at least so many of a hundred do not exceed. */
function percentile(sorted: number[], hundredths: number): number | undefined {
  return sorted[Math.max(0, Math.ceil((hundredths / 100) * sorted.length) - 1)];
}
