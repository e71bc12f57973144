// What the script files in data/ hold. RunFile.java and MinutesFiles.java write it. Times are microseconds, `at` since
// the run started.

export const OUTCOMES = ['passed', 'skipped', 'aborted', 'expected', 'unfinished', 'failed', 'errored'] as const;
export type Outcome = (typeof OUTCOMES)[number];

export interface RunData {
  name: string;
  started: string;
  took: number;
  sentence: string;
  /** What the run lacks, in a sentence. */
  incomplete?: string;
  /** Which part of the tests' time recording took. */
  cost: number;
  /** How many rows share one file of minutes. */
  chunk: number;
  /** How many exchanges the run has, in files of 20,000. */
  exchanges: number;
  /** The run whose exchanges can be compared with. */
  earlier?: string;
  counts: Partial<Record<Outcome, number>>;
  facts: [string, string][];
  /** `began`: what the times in console and network lists are counted from. */
  workers: { name: string; began: number; ended: boolean; missing: number }[];
  problems: string[];
  causes: Cause[];
  rows: Row[];
}

export interface Cause {
  title: string;
  type: string;
  place: string;
  /** Places in `rows`. */
  tests: number[];
}

/** A test, or a container that broke outside its tests. */
export interface Row {
  address: string;
  container?: true;
  name: string;
  path: string[];
  className?: string;
  tags?: string[];
  outcome: Outcome;
  at: number;
  took: number;
  worker: string;
  thread?: string;
  /** The reason, or the first line of the failure. */
  said?: string;
  cause?: number;
  /** How many there were, where there was more than one; of the last one. */
  attempts?: number;
  /** Executed again later; counts no more. */
  superseded?: true;
  /** Passed when it was executed again. */
  recovered?: true;
  about?: About;
  /** Named data, as text to search in. */
  data?: string;
  /** Which set of rows it is one of. */
  set?: number;
  values?: [string, string][];
  /** The first check that failed, of one in a set. */
  failing?: string;
}

export interface About {
  text?: string;
  severity?: string;
  owner?: string;
  links: { name: string; address?: string }[];
}

export interface Minutes {
  entries: Entry[];
  failure?: Failure;
}

export interface Failure {
  type: string;
  message?: string;
  expected?: string;
  actual?: string;
  stack: string;
  gathered?: Failure[];
}

export type Entry = Step | Note | Log | Exchange | Check | Data | Paper;

export interface Step {
  is: 'step';
  at: number;
  kind?: 'set-up' | 'tear-down' | 'browser';
  name: string;
  outcome: Outcome;
  took: number;
  /** How long it should take at the most. */
  budget?: number;
  reason?: string;
  thread?: string;
  failure?: Failure;
  entries: Entry[];
}

export interface Note {
  is: 'note';
  at: number;
  text: string;
  thread?: string;
}

export interface Log {
  is: 'log';
  at: number;
  level: string;
  logger: string;
  text: string;
  thread?: string;
  context?: string;
  failure?: Failure;
}

export interface Exchange {
  is: 'exchange';
  at: number;
  /** Missing where nobody knows, as of redirects that a client tells of only afterwards. */
  took?: number;
  client: string;
  method: string;
  url: string;
  protocol?: string;
  status?: number;
  /** Why there is no whole answer. */
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
  is: 'check';
  at: number;
  name: string;
  outcome: Outcome;
  failure?: Failure;
}

export interface Data {
  is: 'data';
  at: number;
  name: string;
  value: string;
}

export interface Paper {
  is: 'paper';
  at: number;
  name: string;
  kind: string;
  mediaType: string;
  size: number;
  /** Promised, and it never came. */
  awaited?: true;
  /** Missing where the run lost the file. */
  href?: string;
  /** Names the script file that holds its text, where it has one. */
  text?: string;
  /** For what has a time of its own, such as a video: when that begins. */
  begins?: number;
  /** Of an HTTP archive: how many it holds, the first of them, or why it cannot be read. */
  held?: number;
  exchanges?: Exchange[];
  unread?: string;
  /** A video's steps, as a WebVTT file. */
  chapters?: string;
}

export interface PaperText {
  text: string;
  cutAt?: number;
}

/** A line of a browser's console; `at` is counted from the worker's beginning. */
export interface ConsoleLine {
  at: number;
  level: string;
  text: string;
  place?: string;
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
 * In the list of all: place of its row, or -1; moment; time, or -1; method; address; status, 0 where it was answered without
 * one, -1 where it was not answered; bytes, or -1; failure; failed checks.
 */
export type ExchangeRow = [
  row: number,
  at: number,
  took: number,
  method: string,
  url: string,
  status: number,
  size: number,
  failed: string,
  failedChecks: number,
];
