// What is different in two exchanges of the same request: by names and by paths, not by lines.
import { withoutChancePort } from './endpoints';
import type { Body, Exchange, Message } from './types';

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

const MOST = 500;

export function compared(here: Exchange, there: Exchange): Compared {
  const found: Compared = { differences: [], more: 0, same: 0, passedOver: [] };
  put(found, 'status', String(here.status ?? 'no answer'), String(there.status ?? 'no answer'));
  put(found, 'address', withoutChancePort(here.url), withoutChancePort(there.url));
  put(found, 'failure', here.failed, there.failed);
  bodies(found, 'request body', here.request.body, there.request.body);
  bodies(found, 'response body', here.response?.body, there.response?.body);
  headers(found, 'request', here.request, there.request);
  headers(found, 'response', here.response, there.response);
  return found;
}

function put(found: Compared, what: string, here: string | undefined, there: string | undefined): void {
  if (here === there) {
    if (here !== undefined) found.same++;
  } else if (found.differences.length < MOST) found.differences.push({ what, here, there });
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
  if (one !== undefined && other !== undefined) values(found, what, '$', one, other);
  else put(found, what, shown(here), shown(there));
}

function json(body: Body | undefined): unknown {
  if (body?.inline === undefined || body.cut) return undefined;
  try {
    return JSON.parse(body.inline);
  } catch {
    return undefined;
  }
}

function shown(body: Body | undefined): string | undefined {
  if (!body) return undefined;
  return body.inline ?? `${body.mediaType || 'something'} of ${body.size} bytes`;
}

function values(found: Compared, what: string, path: string, here: unknown, there: unknown): void {
  if (Array.isArray(here) && Array.isArray(there)) lists(found, what, path, here, there);
  else if (isObject(here) && isObject(there))
    for (const key of new Set([...Object.keys(here), ...Object.keys(there)])) {
      const inside = /^[A-Za-z_]\w*$/.test(key) ? `${path}.${key}` : `${path}[${JSON.stringify(key)}]`;
      if (!(key in here)) put(found, `${what} ${inside}`, undefined, JSON.stringify(there[key]));
      else if (!(key in there)) put(found, `${what} ${inside}`, JSON.stringify(here[key]), undefined);
      else values(found, what, inside, here[key], there[key]);
    }
  else put(found, `${what} ${path}`, JSON.stringify(here), JSON.stringify(there));
}

/** What is the same at the beginnings and the ends belongs together; in between, the first with the first. */
function lists(found: Compared, what: string, path: string, here: unknown[], there: unknown[]): void {
  const one = here.map((value) => JSON.stringify(value));
  const other = there.map((value) => JSON.stringify(value));
  let from = 0;
  while (from < Math.min(one.length, other.length) && one[from] === other[from]) from++;
  let ends = 0;
  while (ends < Math.min(one.length, other.length) - from && one.at(-1 - ends) === other.at(-1 - ends)) ends++;
  found.same += from + ends;
  const oneEnd = one.length - ends;
  const otherEnd = other.length - ends;
  for (let i = from; i < Math.max(oneEnd, otherEnd); i++) {
    const inside = `${path}[${i}]`;
    if (i >= oneEnd) put(found, `${what} ${inside}`, undefined, other[i]);
    else if (i >= otherEnd) put(found, `${what} ${inside}`, one[i], undefined);
    else values(found, what, inside, here[i], there[i]);
  }
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
