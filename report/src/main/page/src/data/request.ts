// What a recorded request was, made ready to be sent once more: one model for all the forms in which it is copied. What cannot
// be the same as it was is said in remarks.
import type { Body, Exchange } from './types';

/** A body is a row of these. */
export type Piece = { bytes: Uint8Array } | { file: string };

export interface SentRequest {
  method: string;
  url: string;
  headers: [name: string, value: string][];
  /** Undefined where none was sent. */
  body?: Piece[];
  /** Sentences without anything that was recorded, but for names of files. */
  remarks: string[];
}

/** What a client sets by itself, and would send twice. */
const OF_THE_CLIENT = ['content-length', 'connection', 'upgrade', 'http2-settings', 'expect', 'transfer-encoding', 'proxy-connection', 'traceparent'];
const TOKEN = /^[!#$%&'*+.^_`|~0-9A-Za-z-]+$/;
const MASK = '[masked]';

/** Why there is nothing to copy, or the request. */
export function sentRequest(exchange: Exchange): SentRequest | string {
  if (!/^https?:\/\/[^/]/i.test(exchange.url)) return 'Only HTTP can be sent again.';
  if (!TOKEN.test(exchange.method)) return 'Its method is no method of HTTP.';
  const remarks = new Set<string>();
  const url = exchange.url.replace(/#.*/s, '');
  const headers = headersOf(exchange, url, remarks);
  const request: SentRequest = { method: exchange.method, url, headers, remarks: [] };
  const body = exchange.request.body;
  const sent = body && pieces(body, exchange, remarks);
  if (sent) request.body = sent;
  if (JSON.stringify([url, headers]).includes(MASK)) remarks.add(`${MASK} stands for a secret that was not recorded.`);
  if (exchange.attributes['unseen']) remarks.add(`Not in here: ${plain(exchange.attributes['unseen'])}.`);
  request.remarks = [...remarks];
  return request;
}

function headersOf(exchange: Exchange, url: string, remarks: Set<string>): [string, string][] {
  const host = /^https?:\/\/([^/?#]*)/i.exec(url)![1]!.replace(/^.*@/, '');
  const kept: [string, string][] = [];
  for (const [name, value] of exchange.request.headers) {
    const low = name.toLowerCase();
    if (OF_THE_CLIENT.includes(low) || name.startsWith(':')) continue;
    if (low === 'host' && value.toLowerCase() === host.toLowerCase()) continue;
    if (!TOKEN.test(name)) remarks.add('Left out: a header whose name is no name of a header.');
    else if (/[\x00-\x08\x0a-\x1f\x7f]/.test(value)) remarks.add('Left out: a header with a line break or another control character in it.');
    else if (low === 'content-encoding' && isUnpacked(exchange.request.body)) remarks.add('The body was sent packed, and goes out unpacked here, without its header Content-Encoding.');
    else kept.push([name, value]);
    if (/[^\x20-\x7e\t]/.test(value)) remarks.add('A header has letters beyond ASCII, which go out as UTF-8 here.');
  }
  return kept;
}

function isUnpacked(body: Body | undefined): boolean {
  return body?.inline !== undefined || body?.decoded !== undefined || body?.href !== undefined;
}

function pieces(body: Body, exchange: Exchange, remarks: Set<string>): Piece[] | undefined {
  if (body.parts) return parts(body, exchange, remarks);
  const piece = pieceOf(body, remarks);
  return piece && [piece];
}

/** As a file where only that has all of it, or as it stands in the record. */
function pieceOf(body: Body, remarks: Set<string>): Piece | undefined {
  if (body.leftOut) {
    remarks.add('Its body, or a part of it, was not kept.');
    return undefined;
  }
  if (body.cut) remarks.add('Of its body, or of a part of it, only the beginning was kept.');
  if (body.href) {
    const file = fileName(body.href);
    remarks.add(`Save the body as ${plain(file)} first, in the folder where this is run.`);
    return { file };
  }
  const text = body.inline ?? '';
  if (text.includes(MASK)) remarks.add(`${MASK} stands for a secret that was not recorded.`);
  if (text.includes('\ufffd')) remarks.add('Its body had bytes that are no letters of its charset; a mark stands for them.');
  return { bytes: encoded(text, charset(body.mediaType), remarks) };
}

/** Joined as they were, where their heads are known. */
function parts(body: Body, exchange: Exchange, remarks: Set<string>): Piece[] {
  const contentType = exchange.request.headers.find(([name]) => /^content-type$/i.test(name))?.[1] ?? body.mediaType;
  const boundary = /boundary=(?:"([^"]+)"|([^\s;]+))/i.exec(contentType)?.slice(1).find(Boolean);
  const separator = boundary ?? 'the-next-part';
  const joined: Piece[] = [];
  for (const part of body.parts!) {
    if (part.head === undefined) remarks.add('The heads of its parts were not recorded, and are made anew.');
    const head = part.head ?? madeHead(part.name, part.fileName, part.body.mediaType);
    joined.push(utf8(`--${separator}\r\n${head}\r\n\r\n`));
    const content = pieceOf(part.body, remarks);
    if (content) joined.push(content);
    joined.push(utf8('\r\n'));
  }
  joined.push(utf8(`--${separator}--\r\n`));
  if (!boundary) remarks.add('Its boundary was not recorded. Send the header Content-Type: multipart/form-data; boundary=the-next-part');
  return merged(joined);
}

function madeHead(name: string, fileName: string | undefined, type: string): string {
  const quoted = (text: string) => '"' + text.replace(/[\r\n"]/g, (c) => '%' + c.charCodeAt(0).toString(16).padStart(2, '0').toUpperCase()) + '"';
  const file = fileName === undefined ? '' : `; filename=${quoted(fileName)}`;
  return `Content-Disposition: form-data; name=${quoted(name)}${file}` + (type && fileName !== undefined ? `\r\nContent-Type: ${type.replace(/[\r\n]/g, ' ')}` : '');
}

function utf8(text: string): { bytes: Uint8Array } {
  return { bytes: new TextEncoder().encode(text) };
}

/** Neighbours that are both bytes, as one. */
function merged(all: Piece[]): Piece[] {
  const fewer: Piece[] = [];
  for (const piece of all) {
    const last = fewer.at(-1);
    if (last && 'bytes' in last && 'bytes' in piece) fewer[fewer.length - 1] = { bytes: new Uint8Array([...last.bytes, ...piece.bytes]) };
    else fewer.push(piece);
  }
  return fewer;
}

function charset(mediaType: string): string {
  return (/charset="?([\w.:-]+)/i.exec(mediaType)?.[1] ?? 'utf-8').toLowerCase();
}

function encoded(text: string, charset: string, remarks: Set<string>): Uint8Array {
  if (['utf-8', 'utf8', 'us-ascii', 'ascii'].includes(charset)) return new TextEncoder().encode(text);
  if (['iso-8859-1', 'latin1', 'iso8859-1', 'iso_8859-1'].includes(charset) && /^[\0-\xff]*$/.test(text)) return Uint8Array.from(text, (c) => c.charCodeAt(0));
  if (charset.startsWith('utf-16')) {
    if (charset === 'utf-16') remarks.add('Its body is UTF-16; which byte came first was not recorded, and is the higher one here.');
    return utf16(charset === 'utf-16' ? '\ufeff' + text : text, charset === 'utf-16le');
  }
  remarks.add('Its body goes out as UTF-8 here, whatever its header says.');
  return new TextEncoder().encode(text);
}

function utf16(text: string, little: boolean): Uint8Array {
  const bytes = new DataView(new ArrayBuffer(text.length * 2));
  for (let i = 0; i < text.length; i++) bytes.setUint16(i * 2, text.charCodeAt(i), little);
  return new Uint8Array(bytes.buffer);
}

/** Whether a client would say of no body that it has a length of 0. */
export function saysItsLength(method: string): boolean {
  return ['POST', 'PUT', 'PATCH'].includes(method.toUpperCase());
}

export function has(request: SentRequest, name: string): boolean {
  return request.headers.some(([one]) => one.toLowerCase() === name);
}

/** Of one line and without anything that could end a comment or mean something in one. */
export function plain(text: string): string {
  return text.replace(/[^\p{L}\p{N} ._,;:()@%+-]/gu, '_');
}

/** The copies in the page's folder end in .txt where a browser might run them. */
export function fileName(href: string): string {
  return decodeURIComponent(href.split('/').at(-1)!).replace(/\.txt$/, '');
}
