// Where the values of a request came from: an answer that the test had got before. What the test sent itself, before any answer had
// it, came from no answer.
import { short } from './exchange';
import type { Exchange, Message } from '../data/types';

export interface Origin {
  value: string;
  /** Such as `POST /api/loans`. */
  request: string;
  /** Where in its answer, such as `$.number`. */
  path: string;
}

const MAX_ORIGINS = 5;
const LONGEST_BODY = 200_000;
const MAX_VALUES = 2_000;

/** @param all of the test, in their order */
export function originsOf(exchange: Exchange, all: Exchange[]): Origin[] {
  const at = all.indexOf(exchange);
  if (at < 1) return [];
  const wanted = new Set([...valuesOfUrl(exchange.url), ...leaves(exchange.request).map(([, value]) => value)].filter(isDistinct));
  const found: Origin[] = [];
  for (const before of all.slice(0, at)) {
    if (wanted.size === 0 || found.length === MAX_ORIGINS) break;
    for (const value of [...valuesOfUrl(before.url), ...leaves(before.request).map(([, sent]) => sent)]) wanted.delete(value); // the test knew it
    for (const [path, value] of leaves(before.response))
      if (wanted.delete(value)) found.push({ value, request: `${before.method} ${short(before.url)}`, path });
  }
  return found.slice(0, MAX_ORIGINS);
}

/** Small numbers and short words are everywhere. */
function isDistinct(value: string): boolean {
  return /^\d+$/.test(value) ? value.length > 1 : value.length > 3 && value !== 'true' && value !== 'false' && value !== 'null';
}

function valuesOfUrl(url: string): string[] {
  const [path = '', query = ''] = url.replace(/#.*$/, '').split('?');
  const parts = path.replace(/^[a-z][a-z0-9+.-]*:\/\/[^/]*/i, '').split('/');
  return [...parts, ...query.split('&').map((pair) => pair.replace(/^[^=]*=/, ''))].filter(Boolean).map(decoded);
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text.replace(/\+/g, ' '));
  } catch {
    return text;
  }
}

/** The values of a JSON body with their paths; nothing of another, or of one that is not here whole. */
function leaves(message: Message | undefined): [path: string, value: string][] {
  const body = message?.body;
  if (!body?.inline || body.cut || body.text !== undefined || body.inline.length > LONGEST_BODY || !/json/i.test(body.mediaType)) return [];
  const found: [string, string][] = [];
  try {
    gather(JSON.parse(body.inline), '$', found);
  } catch {
    return [];
  }
  return found;
}

function gather(value: unknown, path: string, found: [string, string][]): void {
  if (found.length >= MAX_VALUES) return;
  if (Array.isArray(value)) value.forEach((one, index) => gather(one, `${path}[${index}]`, found));
  else if (value !== null && typeof value === 'object') for (const [name, one] of Object.entries(value)) gather(one, /^[A-Za-z_]\w*$/.test(name) ? `${path}.${name}` : `${path}['${name}']`, found);
  else if (value !== null) found.push([path, String(value)]);
}
