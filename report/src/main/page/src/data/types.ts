// What the script files in data/ hold. RunFile.java, RowFiles.java and TestFiles.java write it. Times are microseconds, `at` since
// the run started.

/** Those that this version knows, from the calmest to the gravest. A run of a later version may have others. */
export const OUTCOMES = ['passed', 'skipped', 'aborted', 'expected-failure', 'unfinished', 'failed', 'errored'] as const;
export type Outcome = string;

export interface RunData {
  name: string;
  started: string;
  duration: number;
  sentence: string;
  /** From here to the hub's pages of this project's reasons and tests, where a hub shows this page. */
  projectPages?: string;
  /** What the run lacks, in a sentence. */
  incomplete?: string;
  /** Which part of the tests' time recording took. */
  overhead: number;
  /** How many rows share one file in data/tests. */
  chunk: number;
  /** How many files in data/rows hold the rows. */
  rowFiles: number;
  /** How many tests the run counts. */
  tests: number;
  /** How many exchanges the run has, in files of 20,000. */
  exchanges: number;
  /** OpenAPI documents that answers were held against. */
  contracts?: Contract[];
  /** The run whose exchanges can be compared with. */
  baseline?: string;
  /** Runs before this one on its branch, as far as they are remembered. */
  earlier?: { runs: number; last: string; list: EarlierRun[] };
  /** How many failures are new, how many of them are of flaky tests, how many tests are slower, and the run beside which they are. */
  news?: { tests: number; flaky?: number; slower?: number; run: string; started: string; branch: string };
  /** Which part of the suite was meant to run; missing where it was the whole. */
  part?: string;
  /** What this copy of the run lacks of what was recorded; missing where it has all. */
  leftOut?: string;
  counts: Record<Outcome, number>;
  /** Missing where it was left out. */
  facts?: [string, string][];
  /** Containers that broke outside their tests, by name, and how many of their tests did not run. */
  broken: [name: string, notRun: number][];
  /** How many steps outside tests failed. */
  outside: number;
  /** Where the run is still going. */
  progress?: Progress;
  /** What a team wrote above its pages, and its image as a `data:` address. */
  title?: string;
  subtitle?: string;
  logo?: string;
  /** `began`: what the times in console and network lists are counted from. */
  workers: { name: string; began: number; ended: boolean; missing: number }[];
  problems: string[];
  /** What the team says of failures; missing where it says nothing. */
  rules?: Rule[];
  /** The most frequent first; only some are whole. */
  reasons: (Reason | { title: string })[];
  slowest: (ShownRow & { duration: number })[];
  allFlaky: number;
  /** `why` its attempt before did not pass; grouped by that. */
  flaky: (ShownRow & { attempts: number; why?: string })[];
  strip: TimeSlices;
  tables: GroupTable[];
  /** Loaded after the first view; empty until then. */
  rows: Row[];
}

export interface Contract {
  name: string;
  operations: [method: string, path: string][];
}

/** A run before this one: its name, when it began, how many tests, how many of them needed attention, how long, the commit or nothing. */
export type EarlierRun = [name: string, started: string, tests: number, attention: number, duration: number, commit: string];

/** A test over the runs before, a letter each, the oldest first: `.` passed, `~` flaky, `F` failed, `-` did not run, a blank where it was not there. */
export interface Marks {
  name: string;
  /** Of its row, where this run has it. */
  id?: string;
  outcome?: Outcome;
  recovered?: true;
  in?: string;
  why: 'failing' | 'flaky' | 'slower';
  letters: string;
  /** How long it took before, and takes since it became slower. */
  usually?: number;
  now?: number;
}

/** How far a run is: number of this page, from 0; which part is behind it; what was expected, 0 where nobody knows; what is running. */
export interface Progress {
  number: number;
  share: number;
  tests: number;
  duration: number;
  running: [name: string, within: string, at: number, worker: string][];
}

/** A row as the summary shows it. */
export interface ShownRow {
  id: string;
  name: string;
  outcome: Outcome;
  /** The outermost of what it lies in. */
  in?: string;
}

/** The run in slices of one width, those without an attempt left out. */
export interface TimeSlices {
  slices: number;
  width: number;
  filled: TimeSlice[];
}

/** What began in one of them, and the gravest of it. */
export interface TimeSlice {
  slice: number;
  attempts: number;
  attention: number;
  outcome: Outcome;
  superseded?: true;
  id: string;
  name: string;
}

/** Tests by what they belong to: the name of a group; how many; how many need attention; how many are flaky; their time. */
export interface GroupTable {
  by: 'class' | 'package' | 'tag' | 'owner' | 'severity';
  groups: number;
  rows: [name: string, tests: number, attention: number, flaky: number, time: number][];
}

/** What a team says of a failure. */
export interface Rule {
  label: string;
  owner?: string;
  link?: string;
  comment?: string;
  /** The last day on which nobody needs to look. */
  knownUntil?: string;
}

export interface Reason {
  /** The same in every run. */
  id: string;
  title: string;
  type: string;
  /** Of a stack: the nearest one of the suite's own; empty where there is none. */
  frame: string;
  /** The recorded line that explains it. */
  evidence?: string;
  /** The first run of its present stretch and how many that are; or when it was seen last, where the run before did not have it. */
  seen?: string;
  since?: string;
  runs?: number;
  /** Of the first of them that has one: where its last screenshot lies, and whose it is. */
  screenshot?: [href: string, id: string, name: string];
  /** Positions of what the team says of its failures. */
  rules?: number[];
  /** How many rows have it. */
  tests: number;
  first: ShownRow[];
}

/** A test, or a container that broke outside its tests. */
export interface Row {
  /** Names the attempt in the run: `#/test/ID`. */
  id: string;
  container?: true;
  name: string;
  /** Its position in the order of names. */
  rank: number;
  path: string[];
  /** Which module of its build it is of, where that has several. */
  module?: string;
  className?: string;
  /** Where it is written, as a file and a line, where its class does not say it. */
  source?: string;
  tags?: string[];
  outcome: Outcome;
  at: number;
  duration: number;
  worker: string;
  thread?: string;
  /** Why it was skipped, or the first line of the failure. */
  message?: string;
  /** Which of the run's reasons it failed for. */
  reason?: number;
  /** What the team says of it: a position in the run's rules. */
  rule?: number;
  /** How many there were, where there was more than one; of the last one. */
  attempts?: number;
  /** There was a later attempt; counts no more. */
  superseded?: true;
  /** Flaky: passed after an attempt that had not. */
  /** Of one that passed on a later attempt only: why the one before did not, and the id of its row. */
  why?: string;
  attemptBefore?: string;
  /** What first went otherwise in the attempt before. */
  difference?: string;
  recovered?: true;
  /** The rows because of which it was not run, by their ids. */
  blockedBy?: string[];
  /** What became of it in earlier runs, a letter each, the oldest first: `.` passed, `~` flaky, `F` failed, `-` did not run. */
  before?: string;
  /** Needs attention, and did not when it ran last. */
  fresh?: true;
  /** Its test is flaky: how often it fails anyway, in per cent. */
  anyway?: number;
  /** There is a brief of its failure. */
  brief?: true;
  about?: About;
  /** Named data, as text to search in. */
  data?: string;
  /** Which set of rows it is one of. */
  set?: number;
  values?: [string, string][];
  /** What its checks found, by what they looked at; of one in a set. */
  found?: [string, string][];
  /** The first check that failed, of one in a set. */
  failing?: string;
}

export interface About {
  text?: string;
  severity?: string;
  owner?: string;
  links: { name: string; address?: string }[];
}

/** A failure as text for elsewhere, and what was near to an element that was not found. */
export interface Brief {
  /** Of its row, in the page of a run that is still going. */
  id?: string;
  text: string;
  locator?: string;
  /** Lines around the one that failed. */
  source?: { file: string; line: number; first: number; lines: string[] };
  nearest?: [selector: string, text: string, why: string][];
}

export interface TestData {
  /** Of a test of another run. */
  outcome?: Outcome;
  duration?: number;
  /** Of its row, in the page of a run that is still going. */
  id?: string;
  /** What happened in it was left out of this page. */
  leftOut?: true;
  entries: Entry[];
  failure?: Failure;
}

/** What failures say, to search in. */
export interface FailureTexts {
  /** The row's position, what is its own, and numbers of pieces that it has in common with others. */
  texts: [number, string, ...number[]][];
  /** How the names of the files in data/pieces begin, and how many there are. */
  from?: string;
  files: number;
}

export interface Failure {
  type: string;
  message?: string;
  expected?: string;
  actual?: string;
  stack: string;
  /** Which of its lines are of the suite's own code, from 0. */
  own: number[];
  gathered?: Failure[];
}

export type Entry = Step | Log | Exchange | Check | Data | Attachment | Pending | Unknown;

export interface Step {
  type: 'step';
  at: number;
  /** `set-up`, `tear-down`, `browser`, or one of a later version. */
  kind?: string;
  name: string;
  outcome: Outcome;
  duration: number;
  /** How long it should take at the most. */
  budget?: number;
  reason?: string;
  thread?: string;
  /** Cells of each row of the table below it. */
  table?: string[][];
  /** The text below it. */
  below?: string;
  failure?: Failure;
  entries: Entry[];
}

export interface Log {
  type: 'log';
  at: number;
  /** Of a logger's line; the test's own may have none. */
  level?: string;
  logger?: string;
  marker?: string;
  text: string;
  thread?: string;
  context?: string;
  failure?: Failure;
}

export interface Exchange {
  type: 'exchange';
  at: number;
  /** Unique among those of its worker; missing in an HTTP archive. */
  id?: number;
  /** Missing where nobody knows, as of redirects that a client reports only afterwards. */
  duration?: number;
  client: string;
  method: string;
  url: string;
  protocol?: string;
  status?: number;
  /** Why there is no whole response. */
  failed?: string;
  thread?: string;
  timings: Record<string, number>;
  attributes: Record<string, string>;
  trace?: { id: string; address?: string };
  checks?: [Outcome, string][];
  request: Message;
  response?: Message;
}

export interface Message {
  headers: [string, string][];
  body?: Body;
}

export interface Body {
  mediaType: string;
  /** On the wire; -1 where nobody knows. */
  size: number;
  decoded?: number;
  /** All that was kept of it, or where there is a file, its beginning. */
  inline?: string;
  cut?: true;
  leftOut?: string;
  href?: string;
  /** Names the script file that holds all that was kept of it. */
  text?: string;
  /** `head`: its own lines, as they were sent. */
  parts?: { name: string; fileName?: string; head?: string; body: Body }[];
}

export interface Check {
  type: 'check';
  at: number;
  name: string;
  outcome: Outcome;
  /** The value that was found, of one that passed and said it. */
  actual?: string;
  failure?: Failure;
}

export interface Data {
  type: 'data';
  at: number;
  name: string;
  value: string;
}

export interface Attachment {
  type: 'attachment';
  at: number;
  name: string;
  kind: string;
  mediaType: string;
  size: number;
  /** Missing where the run lost the file, or it was left out of this copy. */
  href?: string;
  leftOut?: string;
  /** Names the script file that holds its text, where it has one. */
  text?: string;
  /** For what has a time of its own, such as a video: when that begins. */
  begins?: number;
  /** Of an HTTP archive: how many it holds, the first of them, or why it cannot be read. */
  held?: number;
  exchanges?: Exchange[];
  unread?: string;
  /** A video's steps, as a WebVTT file. */
  captions?: string;
}

/** An attachment that was to come later and never did. */
export interface Pending {
  type: 'pending';
  at: number;
  name: string;
}

/** Something of a later version, as it stands in the journal. */
export interface Unknown {
  type: 'unknown';
  at: number;
  word: string;
  json: string;
  entries: Entry[];
}

export interface AttachmentText {
  text: string;
  cutAt?: number;
}

/** A line of a browser's console; `at` is counted from the worker's beginning. */
export interface ConsoleLine {
  at: number;
  level: string;
  text: string;
  source?: string;
}

/** What a browser asked of the network; `at` is counted from the worker's beginning. */
export interface NetworkRequest {
  at: number;
  method: string;
  url: string;
  type: string;
  status?: number;
  micros?: number;
  bytes?: number;
  failure?: string;
}

/**
 * In the list of all: number of its row, or -1; its id; moment; duration, or -1; method; URL; status, 0 where it was answered
 * without one, -1 where it was not answered; bytes, or -1; failure; failed checks.
 */
export type ExchangeRow = [
  row: number,
  id: number,
  at: number,
  duration: number,
  method: string,
  url: string,
  status: number,
  size: number,
  failed: string,
  failedChecks: number,
];

/** Whether all is known of it that the summary shows. */
export function isWhole(reason: Reason | { title: string } | undefined): reason is Reason {
  return reason !== undefined && 'id' in reason;
}
