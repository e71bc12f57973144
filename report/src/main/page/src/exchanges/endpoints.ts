// How each endpoint did: its exchanges put together, whatever numbers stand in their URLs.
import type { ExchangeRow, Outcome } from '../data/types';

/** Where things stand in a row of the list of all. */
export const COLUMN = { row: 0, id: 1, at: 2, duration: 3, method: 4, url: 5, status: 6, size: 7, failed: 8, failedChecks: 9 } as const;

/** How an exchange was answered, where that is worth a column of its own. */
export const RESPONSES = ['4xx', '5xx', 'no response'] as const;
export type ResponseKind = (typeof RESPONSES)[number];

export interface Endpoint {
  name: string;
  count: number;
  /** Undefined where nobody knows how long any of them took. */
  p50: number | undefined;
  p95: number | undefined;
  mean: number | undefined;
  /** How long each was that somebody knows it of. */
  times: number[];
  responses: Record<ResponseKind, number>;
  /** How many of its responses failed a check. */
  failedChecks: number;
  bytes: number;
}

/** Undefined for what was answered otherwise. A status that a test expected is no error: this only counts. */
export function responseOf(row: ExchangeRow): ResponseKind | undefined {
  const status = row[COLUMN.status];
  if (row[COLUMN.failed] !== '' || status < 0) return 'no response';
  if (status >= 500) return '5xx';
  return status >= 400 ? '4xx' : undefined;
}

/**
 * Whether somebody should look at it: a check of it failed, or it was answered with an error in a test that did not pass. An error in
 * a test that passed was what the test wanted.
 */
export function isUnexpected(response: ResponseKind | undefined, failedChecks: number, outcome: Outcome | undefined): boolean {
  return failedChecks > 0 || (response !== undefined && outcome !== 'passed' && outcome !== 'expected-failure');
}

/** Without a port on the loopback address, which is another each time. */
export function withoutRandomPort(url: string): string {
  return url.replace(/^((?:[a-z][a-z0-9+.-]*:\/\/)?(?:127\.0\.0\.1|localhost|\[::1\])):\d+/i, '$1');
}

/** `GET orto.example/api/plots/{}`: parts of the path that are numbers or long identifiers are left open. */
export function endpointOf(method: string, url: string): string {
  const [, rest = url] = /^[a-z][a-z0-9+.-]*:\/\/(.*)$/i.exec(url) ?? [];
  const path = withoutRandomPort(rest.replace(/[?#].*$/, ''));
  return method + ' ' + path.replace(/\/(\d+|[0-9a-f]{8,}(-[0-9a-f]{4,})*)(?=\/|$)/gi, '/{}');
}

/** So many values behind a collection are members of it: fewer where they look like names that people gave. */
const MEMBERS = 4;
const NAMED_MEMBERS = 3;

const LOOKS_LIKE_A_NAME = /[A-Z0-9%]/;

/**
 * The endpoints of many requests. Besides numbers and identifiers, what stands behind a path that is asked for itself, such as
 * `/api/seeds`, is left open where it has many values, such as `/api/seeds/Basil/loans`, `/api/seeds/Kale/loans`; and where nobody asks for
 * that path, where what stands between it and the same words looks like names.
 */
export function endpointNames(requests: [method: string, url: string][]): string[] {
  let names = requests.map(([method, url]) => endpointOf(method, url));
  for (;;) {
    const folded = withMembersFolded(names);
    if (folded === names) return names;
    names = folded; // behind a path that is one now, others may be
  }
}

/** `names` itself where there is nothing to fold. */
function withMembersFolded(names: string[]): string[] {
  const paths = new Set(names.map((name) => name.slice(name.indexOf(' ') + 1)));
  const members = new Map<string, Set<string>>();
  for (const path of paths) {
    const parts = path.split('/');
    for (let at = 2; at < parts.length; at++) {
      const before = parts.slice(0, at).join('/');
      if (!paths.has(before) || parts[at] === '{}' || parts[at] === '') continue;
      members.set(before, (members.get(before) ?? new Set()).add(parts[at]!));
    }
  }
  const collections = new Set(
    [...members].filter(([, values]) => values.size >= ([...values].some((value) => LOOKS_LIKE_A_NAME.test(value)) ? NAMED_MEMBERS : MEMBERS)).map(([path]) => path),
  );
  for (const path of beforeNames(paths)) collections.add(path);
  if (collections.size === 0) return names;
  return names.map((name) => {
    const [method, path = ''] = [name.slice(0, name.indexOf(' ')), name.slice(name.indexOf(' ') + 1)];
    const parts = path.split('/');
    return method + ' ' + parts.map((part, at) => (at > 1 && part !== '' && collections.has(parts.slice(0, at).join('/')) ? '{}' : part)).join('/');
  });
}

/** Paths behind which several names stand, each before the same words. */
function beforeNames(paths: Set<string>): Set<string> {
  const between = new Map<string, Set<string>>();
  for (const path of paths) {
    const parts = path.split('/');
    for (let at = 2; at < parts.length - 1; at++) {
      if (parts[at] === '{}' || /^v\d+$/.test(parts[at]!) || !LOOKS_LIKE_A_NAME.test(parts[at]!)) continue; // v1 is no name
      const around = parts.slice(0, at).join('/') + '\n' + parts.slice(at + 1).join('/');
      between.set(around, (between.get(around) ?? new Set()).add(parts[at]!));
    }
  }
  return new Set([...between].filter(([, names]) => names.size >= NAMED_MEMBERS).map(([around]) => around.slice(0, around.indexOf('\n'))));
}

export function namesOf(rows: ExchangeRow[]): string[] {
  return endpointNames(rows.map((row) => [row[COLUMN.method], row[COLUMN.url]]));
}

/** @param names of the endpoints of `rows`, see {@link namesOf} */
export function endpoints(rows: ExchangeRow[], names: string[]): Endpoint[] {
  const groups = new Map<string, ExchangeRow[]>();
  for (const [index, row] of rows.entries()) {
    const name = names[index]!;
    const group = groups.get(name);
    if (group) group.push(row);
    else groups.set(name, [row]);
  }
  return [...groups].map(([name, group]) => {
    const times = group.map((row) => row[COLUMN.duration]).filter((time) => time >= 0).sort((a, b) => a - b);
    return {
      name,
      count: group.length,
      p50: median(times),
      p95: percentile(times, 95),
      mean: times.length === 0 ? undefined : Math.round(times.reduce((sum, time) => sum + time, 0) / times.length),
      times,
      responses: {
        '4xx': group.filter((row) => responseOf(row) === '4xx').length,
        '5xx': group.filter((row) => responseOf(row) === '5xx').length,
        'no response': group.filter((row) => responseOf(row) === 'no response').length,
      },
      failedChecks: group.filter((row) => row[COLUMN.failedChecks] > 0).length,
      bytes: group.reduce((all, row) => all + Math.max(0, row[COLUMN.size]), 0),
    };
  });
}

/** Of an even count the mean of the two in the middle. */
function median(sorted: number[]): number | undefined {
  if (sorted.length === 0) return undefined;
  const half = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[half]! : Math.round((sorted[half - 1]! + sorted[half]!) / 2);
}

/** The nearest rank: the smallest value that at least so many of a hundred do not exceed. */
function percentile(sorted: number[], hundredths: number): number | undefined {
  return sorted[Math.max(0, Math.ceil((hundredths / 100) * sorted.length) - 1)];
}
