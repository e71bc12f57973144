// The same request once more, as a command or as code. Secrets were masked before anything was written: whoever sends it
// puts them back where it says [masked].
import { base64, bash, curlOption, fitsCurlOption, java, powerShell, printfFormat } from '../words/quoting';
import { has, saysItsLength, sentRequest, type Piece, type SentRequest } from '../data/request';
import type { Exchange } from '../data/types';

const NEXT_LINE = ' \\\n  ';

function withRemarks(exchange: Exchange, sign: string, command: (request: SentRequest) => string): string {
  const request = sentRequest(exchange);
  if (typeof request === 'string') return `${sign} ${request}`;
  const text = command(request);
  return [...request.remarks.map((remark) => `${sign} ${remark}`), text].join('\n');
}

/** For bash, and shells with its quotes. */
export function curlForBash(exchange: Exchange): string {
  return withRemarks(exchange, '#', (request) => {
    const body = bodyToSend(request);
    const options = optionsOf(request, body).map(([option, value]) => (value === undefined ? `--${option}` : `--${option} ${bash(value)}`));
    if (!body) return ['curl', ...options].join(NEXT_LINE);
    const [only] = body;
    if (body.length === 1 && only && 'file' in only) return ['curl', ...options, `--data-binary ${bash('@' + only.file)}`].join(NEXT_LINE);
    if (body.length === 1 && only && 'bytes' in only && !only.bytes.includes(0)) return ['curl', ...options, `--data-raw ${bash(only.bytes)}`].join(NEXT_LINE);
    const written = body.map((piece) => ('file' in piece ? `cat -- ${bash(piece.file)}` : `printf -- ${printfFormat(piece.bytes)}`));
    return `{ ${written.join('; ')}; } |\n` + ['curl', ...options, '--data-binary @-'].join(NEXT_LINE);
  });
}

/**
 * For PowerShell, whose versions hand a quote in an argument on in different ways: so there is none. All options stand in a
 * here-string, which curl reads; a body that is not plain goes through a file.
 */
export function curlForPowerShell(exchange: Exchange): string {
  return withRemarks(exchange, '#', (request) => {
    const body = bodyToSend(request);
    const lines = optionsOf(request, body).map(([option, value]) => (value === undefined ? option : `${option} = ${curlOption(value)}`));
    const before: string[] = [];
    let argument = '';
    let after: string[] = [];
    const [only] = body ?? [];
    if (body?.length === 1 && only && 'file' in only) lines.push(`data-binary = ${curlOption('@' + only.file)}`);
    else if (body) {
      const text = body.length === 1 && only && 'bytes' in only ? asciiOf(only.bytes) : undefined;
      if (text !== undefined && fitsCurlOption(text)) lines.push(`data-raw = ${curlOption(text)}`);
      else {
        before.push('  $body = [IO.MemoryStream]::new()');
        for (const piece of body) before.push(`  $part = ${'file' in piece ? `[IO.File]::ReadAllBytes((Join-Path $PWD ${powerShell(piece.file)}))` : `[Convert]::FromBase64String('${base64(piece.bytes)}')`}; $body.Write($part, 0, $part.Length)`);
        before.push('  $file = New-TemporaryFile', '  [IO.File]::WriteAllBytes($file, $body.ToArray())');
        argument = ' --data-binary "@$file"';
        after = ['  Remove-Item $file'];
      }
    }
    return ['& {', '  $OutputEncoding = [Text.UTF8Encoding]::new($false)', ...before, "  @'", ...lines, `'@ | curl.exe --config -${argument}`, ...after, '}'].join('\n');
  });
}

function asciiOf(bytes: Uint8Array): string | undefined {
  return bytes.every((byte) => byte < 0x80) ? new TextDecoder().decode(bytes) : undefined;
}

/** Without their body: options of curl, with their values where they have one. */
function optionsOf(request: SentRequest, body: Piece[] | undefined): [option: string, value?: string][] {
  const head = request.method.toUpperCase() === 'HEAD';
  const url = sendable(request);
  const options: [string, string?][] = [['url', url]];
  if (/[[\]{}]/.test(url)) options.push(['globoff']); // curl would take these for patterns
  if (/\/\.{1,2}(?=[/?]|$)/.test(url)) options.push(['path-as-is']);
  options.push(head ? ['head'] : ['request', request.method]);
  for (const [name, value] of request.headers) options.push(['header', value === '' ? `${name};` : `${name}: ${value}`]);
  if (has(request, 'accept-encoding')) options.push(['compressed']);
  // what curl would add by itself
  for (const name of ['Accept', 'User-Agent', ...(body ? ['Content-Type'] : []), ...(isLong(body) ? ['Expect'] : [])]) if (!has(request, name.toLowerCase())) options.push(['header', `${name}:`]);
  return options;
}

/** curl asks before it sends much. */
function isLong(body: Piece[] | undefined): boolean {
  return body?.some((piece) => 'file' in piece || piece.bytes.length > 1_000) ?? false;
}

/** A request for a head has none: curl would wait for the rest of a response that never comes. */
function bodyToSend(request: SentRequest): Piece[] | undefined {
  if (request.method.toUpperCase() === 'HEAD') {
    if (request.body) request.remarks.push('It had a body, which curl does not send with HEAD.');
    return undefined;
  }
  return request.body ?? (saysItsLength(request.method) ? [{ bytes: new Uint8Array() }] : undefined);
}

/** curl takes no spaces and no control characters in an address, and encodes letters beyond ASCII in parts of it. */
function sendable(request: SentRequest): string {
  const url = request.url.replace(/[\x00-\x20\x7f]|[^\x00-\x7f]+/g, percent);
  if (url !== request.url) request.remarks.push('Characters of the address that curl refuses are percent-encoded here.');
  return url;
}

function percent(text: string): string {
  return [...new TextEncoder().encode(text)].map((byte) => '%' + byte.toString(16).toUpperCase().padStart(2, '0')).join('');
}

/** For the JDK's own client. */
export function javaCode(exchange: Exchange): string {
  return withRemarks(exchange, '//', (request) => {
    const host = request.headers.some(([name]) => name.toLowerCase() === 'host');
    if (host) request.remarks.push('It had a header Host of its own, which the client sets by itself.');
    if (!has(request, 'user-agent')) request.remarks.push('The client adds a header User-Agent of its own.');
    const headers = request.headers.filter(([name]) => name.toLowerCase() !== 'host');
    return [
      `HttpRequest request = HttpRequest.newBuilder(URI.create(${java(javaAddress(request))}))`,
      ...headers.map(([name, value]) => `        .header(${java(name)}, ${java(value)})`),
      `        .method(${java(request.method)}, ${publisher(request.body)})`,
      '        .build();',
      'HttpResponse<String> response = HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofString());',
    ].join('\n');
  });
}

function javaAddress(request: SentRequest): string {
  const [path = '', ...query] = request.url.split('?');
  const encoded = path.replace(/(?<=^https?:\/\/[^/]*\/.*)[[\]]/gi, percent) + (query.length > 0 ? '?' + query.join('?') : '');
  const url = encoded.replace(/%(?![0-9a-f]{2})|[\x00-\x20"<>\\^`{|}\x7f]|[^\x00-\x7f]+/gi, percent);
  if (url !== request.url) request.remarks.push('Characters of the address that the client refuses are percent-encoded here.');
  return url;
}

function publisher(body: Piece[] | undefined): string {
  if (!body) return 'HttpRequest.BodyPublishers.noBody()';
  const each = body.map((piece) => {
    if ('file' in piece) return `HttpRequest.BodyPublishers.ofFile(java.nio.file.Path.of(${java(piece.file)}))`;
    const text = utf8Of(piece.bytes);
    return text === undefined
      ? `HttpRequest.BodyPublishers.ofByteArray(java.util.Base64.getDecoder().decode("${base64(piece.bytes)}"))`
      : `HttpRequest.BodyPublishers.ofString(${java(text)})`;
  });
  return each.length === 1 ? each[0]! : `HttpRequest.BodyPublishers.concat(\n                ${each.join(',\n                ')})`;
}

function utf8Of(bytes: Uint8Array): string | undefined {
  try {
    return new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes);
  } catch {
    return undefined;
  }
}
