// What the page knows and where it is: the run, the files that were loaded so far, the address behind the hash.
import { signal, type Signal } from '@preact/signals';
import type { Entry, Exchange, ExchangeRow, Minutes, Outcome, PaperText, Row, RunData } from './types';

export const run = signal<RunData | undefined>(undefined);

export type Loaded<T> = { state: 'loading' } | { state: 'lost' } | { state: 'here'; value: T };

/** Data that lies in script files: a page that was opened from disk may load scripts, and nothing else. */
class ScriptFiles<T> {
  private readonly files = new Map<string, Signal<Loaded<T>>>();

  constructor(private readonly folder: string) {}

  get(id: string): Signal<Loaded<T>> {
    let file = this.files.get(id);
    if (!file) {
      file = signal<Loaded<T>>({ state: 'loading' });
      this.files.set(id, file);
      this.load(id, file);
    }
    return file;
  }

  arrived(id: string, value: T): void {
    this.get(id).value = { state: 'here', value };
  }

  private load(id: string, file: Signal<Loaded<T>>): void {
    const script = document.createElement('script');
    script.src = `data/${this.folder}/${id}.js`;
    script.onerror = () => (file.value = { state: 'lost' });
    document.head.append(script);
  }
}

export const minutesFiles = new ScriptFiles<Minutes[]>('minutes');
export const exchangeFiles = new ScriptFiles<ExchangeRow[]>('exchanges');
export const earlierFiles = new ScriptFiles<Exchange[][]>('earlier');
export const texts = new ScriptFiles<PaperText>('texts');

export interface Route {
  view: 'summary' | 'ledger' | 'exchanges' | 'minutes';
  /** Which minutes: a row's address, or `run`. */
  address: string;
  params: URLSearchParams;
}

export const route = signal<Route>(parse(location.hash));
addEventListener('hashchange', () => {
  const before = route.value;
  route.value = parse(location.hash);
  if (before.view !== route.value.view || before.address !== route.value.address) scrollTo(0, 0);
});

function parse(hash: string): Route {
  const [path = '', query = ''] = hash.replace(/^#\/?/, '').split('?');
  const [view, ...rest] = path.split('/');
  const params = new URLSearchParams(query);
  if (view === 'ledger' || view === 'exchanges') return { view, address: '', params };
  if (view === 'minutes') return { view, address: decoded(rest.join('/')), params };
  return { view: 'summary', address: '', params };
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

export const summaryLink = '#/';

export function minutesLink(address: string): string {
  return '#/minutes/' + encodeURIComponent(address);
}

export function ledgerLink(params: Record<string, string>): string {
  const query = new URLSearchParams(Object.entries(params).filter(([, value]) => value)).toString();
  return '#/ledger' + (query ? '?' + query : '');
}

export function exchangesLink(params: Record<string, string>): string {
  return ledgerLink(params).replace('#/ledger', '#/exchanges');
}

export function needsAttention(outcome: Outcome): boolean {
  return outcome === 'failed' || outcome === 'errored' || outcome === 'unfinished';
}

const EXCHANGES_A_FILE = 20_000;
export const MOST_EXCHANGES = 10 * EXCHANGES_A_FILE;

/** The list of all, as far as it is here; `lost` where a file of it is missing. */
export function exchangeRows(data: RunData): { rows: ExchangeRow[]; lost: boolean } {
  const files = Math.ceil(Math.min(MOST_EXCHANGES, data.exchanges) / EXCHANGES_A_FILE);
  const loaded = Array.from({ length: files }, (_, file) => exchangeFiles.get(String(file)).value);
  return { rows: loaded.flatMap((file) => (file.state === 'here' ? file.value : [])), lost: loaded.some((file) => file.state === 'lost') };
}

/** What the file that holds a row's part of them has for it; undefined while it is on its way, or lost. */
export function ofRow<T>(files: ScriptFiles<T[]>, data: RunData, place: number): T | undefined {
  const file = files.get(String(Math.floor(place / data.chunk))).value;
  return file.state === 'here' ? file.value[place % data.chunk] : undefined;
}

/** The test of a row, whichever of its executions it is. */
export function keyOf(row: Row): string {
  return row.address.replace(/~\d+$/, '');
}

/** Those in steps too, in their order. */
export function exchangesIn(entries: Entry[]): Exchange[] {
  return entries.flatMap((entry) => (entry.is === 'step' ? exchangesIn(entry.entries) : entry.is === 'exchange' ? [entry] : []));
}
