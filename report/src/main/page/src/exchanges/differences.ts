// What is different in two exchanges of the same request: by names and by paths, not by lines.
import { statusOf } from '../marks/status';
import { withoutRandomPort } from './endpoints';
import { jsonOf, type Json } from './json';
import type { Body, Exchange, Message } from '../data/types';

/** Undefined where one side has nothing there. */
export interface Difference {
  what: string;
  here?: string | undefined;
  there?: string | undefined;
}

export interface Compared {
  differences: Difference[];
  /** How many more there are. */
  more: number;
  /** How many headers and fields were compared, and were the same. */
  same: number;
  /** Headers that differ each time and mean nothing by it. */
  passedOver: string[];
}

const EACH_TIME = ['date', 'traceparent', 'tracestate', 'x-request-id', 'age'];

const LIMIT = 500;

export function compared(here: Exchange, there: Exchange): Compared {
  const found: Compared = { differences: [], more: 0, same: 0, passedOver: [] };
  put(found, 'status', statusOf(here), statusOf(there));
  put(found, 'URL', withoutRandomPort(here.url), withoutRandomPort(there.url));
  put(found, 'failure', here.failed, there.failed);
  bodies(found, 'request body', here.request.body, there.request.body);
  bodies(found, 'response body', here.response?.body, there.response?.body);
  headers(found, 'request', here.request, there.request);
  headers(found, 'response', here.response, there.response);
  return found;
}

/** Of two texts by their paths, where both are objects or lists of JSON; numbers as they are written. */
export function comparedJson(here: string, there: string): Compared | undefined {
  const one = jsonOf(here);
  const other = jsonOf(there);
  if (!one || !other || one.kind === 'leaf' || one.kind !== other.kind) return undefined;
  const found: Compared = { differences: [], more: 0, same: 0, passedOver: [] };
  values(found, '', '$', one, other);
  return found.differences.length === 0 ? undefined : found;
}

function put(found: Compared, what: string, here: string | undefined, there: string | undefined): void {
  if (here === there) {
    if (here !== undefined) found.same++;
  } else if (found.differences.length < LIMIT) found.differences.push({ what, here, there });
  else found.more++;
}

function headers(found: Compared, side: string, here: Message | undefined, there: Message | undefined): void {
  const names = new Map<string, string>();
  for (const [name] of [...(here?.headers ?? []), ...(there?.headers ?? [])]) {
    const small = name.toLowerCase();
    if (!names.has(small)) names.set(small, name);
  }
  for (const [small, name] of names) {
    if (!EACH_TIME.includes(small)) put(found, `${side} header ${name}`, header(here, small), header(there, small));
    else if (!found.passedOver.includes(small)) found.passedOver.push(small);
  }
}

function header(message: Message | undefined, small: string): string | undefined {
  const values = message?.headers.filter(([name]) => name.toLowerCase() === small).map(([, value]) => value) ?? [];
  return values.length === 0 ? undefined : values.join(', ');
}

function bodies(found: Compared, what: string, here: Body | undefined, there: Body | undefined): void {
  const one = json(here);
  const other = json(there);
  if (one && other) values(found, what, '$', one, other);
  else put(found, what, shown(here), shown(there));
}

function json(body: Body | undefined): Json | undefined {
  return body?.inline === undefined || body.cut ? undefined : jsonOf(body.inline);
}

function shown(body: Body | undefined): string | undefined {
  if (!body) return undefined;
  return body.inline ?? `${body.mediaType || 'something'} of ${body.size} bytes`;
}

function values(found: Compared, what: string, path: string, here: Json, there: Json): void {
  if (here.kind === 'list' && there.kind === 'list') lists(found, what, path, here.items, there.items);
  else if (here.kind === 'object' && there.kind === 'object') {
    const one = byName(here.fields);
    const other = byName(there.fields);
    for (const name of new Set([...one.keys(), ...other.keys()])) {
      const inside = /^[A-Za-z_]\w*$/.test(name) ? `${path}.${name}` : `${path}[${JSON.stringify(name)}]`;
      const mine = one.get(name);
      const theirs = other.get(name);
      if (mine && theirs) values(found, what, inside, mine, theirs);
      else put(found, `${what} ${inside}`, mine?.text, theirs?.text);
    }
  } else put(found, `${what} ${path}`, here.text, there.text);
}

/** A name that stands twice is two: `id`, and `id (2)`. */
function byName(fields: [string, Json][]): Map<string, Json> {
  const known = new Map<string, Json>();
  for (const [name, value] of fields) {
    let own = name;
    for (let nth = 2; known.has(own); nth++) own = `${name} (${nth})`;
    known.set(own, value);
  }
  return known;
}

/** What is the same at the beginnings and the ends belongs together; in between, the first with the first. */
function lists(found: Compared, what: string, path: string, here: Json[], there: Json[]): void {
  const one = here.map(plain);
  const other = there.map(plain);
  let from = 0;
  while (from < Math.min(one.length, other.length) && one[from] === other[from]) from++;
  let ends = 0;
  while (ends < Math.min(one.length, other.length) - from && one.at(-1 - ends) === other.at(-1 - ends)) ends++;
  found.same += from + ends;
  const oneEnd = one.length - ends;
  const otherEnd = other.length - ends;
  for (let i = from; i < Math.max(oneEnd, otherEnd); i++) {
    const inside = `${path}[${i}]`;
    const mine = i < oneEnd ? here[i] : undefined;
    const theirs = i < otherEnd ? there[i] : undefined;
    if (mine && theirs) values(found, what, inside, mine, theirs);
    else put(found, `${what} ${inside}`, mine?.text, theirs?.text);
  }
}

/** Without the blanks between its parts, and with all that it says. */
function plain(value: Json): string {
  if (value.kind === 'leaf') return value.text;
  if (value.kind === 'list') return `[${value.items.map(plain).join(',')}]`;
  return `{${value.fields.map(([name, one]) => `${JSON.stringify(name)}:${plain(one)}`).join(',')}}`;
}
