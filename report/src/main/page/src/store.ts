// What the page knows and which view is open: the run, the files that were loaded so far, the route behind the hash.
import { batch, effect, signal, type Signal } from '@preact/signals';
import { isPacked, packedFile, type Call } from './packed';
import { rowsOf } from './rows';
import { OUTCOMES } from './types';
import type { Attachment, Brief, Entry, Exchange, ExchangeRow, Marks, TestData, Outcome, AttachmentText, Reason, Row, RunData } from './types';
import { known } from './texts';

export const run = signal<RunData | undefined>(undefined);

/** Whether the list of tests is here; it comes after the first view. */
export const rowsLoaded = signal<'loading' | 'lost' | 'here'>('loading');

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

  /** Asks for all that is known once more; until it is here, what was here stays. */
  renew(): void {
    for (const [id, file] of this.files) this.load(id, file);
  }

  forget(): void {
    this.files.clear();
  }

  arrived(id: string, value: T): void {
    this.get(id).value = { state: 'here', value };
  }

  private load(id: string, file: Signal<Loaded<T>>, attempt = 1): void {
    const name = `data/${this.folder}/${id}.js`;
    const lost = () => {
      // A page that is being replaced has no files for a moment.
      if (run.value?.progress && attempt < 5) setTimeout(() => this.load(id, file, attempt + 1), 200);
      else file.value = { state: 'lost' };
    };
    if (isPacked) packedFile(name).then((found) => (found ? arrive(found) : lost()), lost);
    else loadScript(name, lost);
  }
}

/** As its script would. */
function arrive({ name, id, value }: Call): void {
  const calls: unknown = window.verbale;
  (calls as Record<string, (id: string, value: unknown) => void>)[name]!(id, value);
}

let askedFor = 0;

function loadScript(name: string, lost: () => void): void {
  const script = document.createElement('script');
  script.src = name + (run.value?.progress ? `?${askedFor++}` : ''); // so that no older one is shown
  script.onerror = () => (script.remove(), lost());
  script.onload = () => script.remove();
  document.head.append(script);
}

/** Whether the run's own file is missing. */
export const isLost = signal(false);

export const loadRun = () => loadScript('data/run.js', () => (isLost.value ||= run.value === undefined));

const LOOKED_EVERY = 2_000;

/** The run's own file is here: for the first time, or once more where the run is still going. */
export function arrivedRun(data: Omit<RunData, 'rows'>): void {
  const before = run.value?.progress;
  if (data.progress) setTimeout(loadRun, LOOKED_EVERY);
  if (before && data.progress?.number === before.number) return;
  run.value = { ...data, rows: run.value?.rows ?? [] };
  requestAnimationFrame(() => setTimeout(() => loadRows(before !== undefined))); // the first view is painted before
}

export const testFiles = new ScriptFiles<TestData[]>('tests');
export const exchangeFiles = new ScriptFiles<ExchangeRow[]>('exchanges');
export const baselineFiles = new ScriptFiles<(TestData | null)[]>('baseline');
export const texts = new ScriptFiles<AttachmentText>('texts');
export const earlierFiles = new ScriptFiles<Marks[]>('earlier');
export const briefFiles = new ScriptFiles<Brief>('briefs');
/** Texts of failures to search in, by positions of rows. */
export const failureTexts = new ScriptFiles<[number, string][]>('failures');

const rowFiles = new ScriptFiles<Row[]>('rows');

export const arrivedRows = (id: string, text: string) => rowFiles.arrived(id, rowsOf(text));

/** For the files of a newer page: what a reader looks at stays until the new one is here. */
function renew(): void {
  for (const files of [rowFiles, exchangeFiles, baselineFiles, texts, earlierFiles, briefFiles, failureTexts]) files.forget();
  testFiles.renew();
}

/** Loads the list of tests, when the first view stands. */
function loadRows(isAgain: boolean): void {
  const data = run.value;
  if (!data) return;
  if (isAgain) renew();
  const files = Array.from({ length: data.rowFiles }, (_, file) => rowFiles.get(String(file)));
  const stop = effect(() => {
    const states = files.map((file) => file.value);
    if (states.some((file) => file.state === 'loading')) return;
    queueMicrotask(() => {
      stop();
      const rows = states.flatMap((file) => (file.state === 'here' ? file.value : []));
      batch(() => {
        run.value = { ...data, rows };
        rowsLoaded.value = states.every((file) => file.state === 'here') ? 'here' : 'lost';
      });
    });
  });
}

export interface Route {
  view: 'summary' | 'tests' | 'workers' | 'exchanges' | 'earlier' | 'test';
  /** Which test: a row's id, or `run` for what happened outside tests. */
  id: string;
  params: URLSearchParams;
}

export const route = signal<Route>(parse(location.hash));
addEventListener('hashchange', () => {
  const before = route.value;
  route.value = parse(location.hash);
  if (before.view !== route.value.view || before.id !== route.value.id) scrollTo(0, 0);
});

function parse(hash: string): Route {
  const [path = '', query = ''] = hash.replace(/^#\/?/, '').split('?');
  const [view, ...rest] = path.split('/');
  const params = new URLSearchParams(query);
  if (view === 'tests' || view === 'workers' || view === 'exchanges' || view === 'earlier') return { view, id: '', params };
  if (view === 'test') return { view, id: decoded(rest.join('/')), params };
  return { view: 'summary', id: '', params };
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

export const summaryLink = '#/';
export const workersLink = '#/workers';
export const earlierLink = '#/earlier';

export function testLink(id: string): string {
  return '#/test/' + encodeURIComponent(id);
}

export function testsLink(params: Record<string, string>): string {
  const query = new URLSearchParams(Object.entries(params).filter(([, value]) => value)).toString();
  return '#/tests' + (query ? '?' + query : '');
}

export function exchangesLink(params: Record<string, string>): string {
  return testsLink(params).replace('#/tests', '#/exchanges');
}

/** Higher is graver; an outcome of a later version comes behind an unfinished one, so that somebody looks at it. */
export function gravity(outcome: Outcome): number {
  const known: readonly string[] = OUTCOMES;
  const at = known.indexOf(outcome);
  return at < 0 ? known.indexOf('unfinished') + 0.5 : at;
}

/** Those that occur in the run, the gravest first. */
export function outcomesIn(data: RunData): Outcome[] {
  return Object.keys(data.counts).toSorted((a, b) => gravity(b) - gravity(a));
}

/** An outcome in words: `expected failure`. */
export function outcomeText(outcome: Outcome): string {
  return known(outcome.replace(/-/g, ' '));
}

export function needsAttention(outcome: Outcome): boolean {
  return gravity(outcome) >= gravity('unfinished');
}

const EXCHANGES_A_FILE = 20_000;
export const MAX_EXCHANGES = 10 * EXCHANGES_A_FILE;

/** The list of all, as far as it is here; `lost` where a file of it is missing. */
export function exchangeRows(data: RunData): { rows: ExchangeRow[]; lost: boolean } {
  const files = Math.ceil(Math.min(MAX_EXCHANGES, data.exchanges) / EXCHANGES_A_FILE);
  const loaded = Array.from({ length: files }, (_, file) => exchangeFiles.get(String(file)).value);
  return { rows: loaded.flatMap((file) => (file.state === 'here' ? file.value : [])), lost: loaded.some((file) => file.state === 'lost') };
}

/** What the file that holds a row's part of them has for it; undefined while it is on its way, or lost. */
export function ofRow<T>(files: ScriptFiles<T[]>, data: RunData, position: number): T | undefined {
  const file = files.get(String(Math.floor(position / data.chunk))).value;
  return file.state === 'here' ? file.value[position % data.chunk] : undefined;
}

/** Whether all is known of it that the summary shows. */
export function isWhole(reason: Reason | { title: string } | undefined): reason is Reason {
  return reason !== undefined && 'id' in reason;
}

/** The test of a row, whichever attempt it is. */
export function keyOf(row: Row): string {
  return row.id.replace(/~\d+$/, '');
}

/** Those in steps too, in their order. */
export function attachmentsIn(entries: Entry[]): Attachment[] {
  return entries.flatMap((entry) => ('entries' in entry ? attachmentsIn(entry.entries) : entry.type === 'attachment' ? [entry] : []));
}

/** Those in steps too, in their order. */
export function exchangesIn(entries: Entry[]): Exchange[] {
  return entries.flatMap((entry) => ('entries' in entry ? exchangesIn(entry.entries) : entry.type === 'exchange' ? [entry] : []));
}
