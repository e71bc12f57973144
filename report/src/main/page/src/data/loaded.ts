// What the page has: the run, and the files that were loaded so far.
import { batch, effect, signal, type Signal } from '@preact/signals';
import { isPacked, packedFile, type Call } from './packed';
import { PIECES_A_FILE, piecesFile, sharedIn, whole } from './shared';
import { rowsOf } from './rows';
import type { AttachmentText, Brief, ExchangeRow, FailureTexts, Marks, Row, RunData, TestData } from './types';

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
let events: EventSource | undefined;

/** When the viewer says so; where none shows this page, now and then. */
function lookAgain(): void {
  if (events) return;
  if (!location.protocol.startsWith('http')) return void setTimeout(loadRun, LOOKED_EVERY);
  events = new EventSource('events');
  events.addEventListener('changed', loadRun);
  events.onerror = () => {
    if (events?.readyState !== EventSource.CLOSED) return; // it comes back by itself
    events = undefined;
    setTimeout(loadRun, LOOKED_EVERY);
  };
}

/** The run's own file is here: for the first time, or once more where the run is still going. */
export function arrivedRun(data: Omit<RunData, 'rows'>): void {
  const before = run.value?.progress;
  if (data.progress) lookAgain();
  else events?.close();
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
export const failureTexts = new ScriptFiles<FailureTexts>('failures');

/** What long texts share, see `shared.ts`. */
const pieceFiles = new ScriptFiles<string[]>('pieces');

export const arrivedPieces = (id: string, pieces: string[]) => pieceFiles.arrived(id, pieces);

/** Data in which long texts are in parts is here when all of these are. */
export function arrivedTests<T>(files: ScriptFiles<T>, id: string, value: T): void {
  const needed = new Set<string>();
  const shared = sharedIn(value);
  for (const { text } of shared) for (const part of text.parts) if (typeof part === 'number') needed.add(piecesFile(text.from, part));
  const pieces = new Map([...needed].map((file) => [file, pieceFiles.get(file)]));
  whenKnown([...pieces.values()], () => {
    for (const { holder, name, text } of shared)
      holder[name] = whole(text, (file) => {
        const found = pieces.get(file)!.value;
        return found.state === 'here' ? found.value : undefined;
      });
    files.arrived(id, value);
  });
}

/** All pieces of texts, one behind the other; undefined while they are on their way. */
export function allPieces({ from = '', files }: FailureTexts): string[] | undefined {
  const states = Array.from({ length: files }, (_, file) => pieceFiles.get(`${from}${file}`).value);
  if (states.some((file) => file.state === 'loading')) return undefined;
  return states.flatMap((file) => (file.state === 'here' ? file.value : Array<string>(PIECES_A_FILE).fill('')));
}

/** Calls `then` once none of `files` is on its way any more. */
function whenKnown(files: Signal<Loaded<string[]>>[], then: () => void): void {
  if (files.length === 0) return then();
  const stop = effect(() => {
    if (files.some((file) => file.value.state === 'loading')) return;
    queueMicrotask(() => {
      stop();
      then();
    });
  });
}

const rowFiles = new ScriptFiles<Row[]>('rows');

export const arrivedRows = (id: string, text: string) => rowFiles.arrived(id, rowsOf(text));

/** For the files of a newer page: what a reader looks at stays until the new one is here. */
function renew(): void {
  for (const files of [rowFiles, exchangeFiles, baselineFiles, texts, earlierFiles, briefFiles, failureTexts, pieceFiles]) files.forget();
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
