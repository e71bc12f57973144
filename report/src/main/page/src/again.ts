// The same request once more, as a command or as code. Secrets were masked before anything was written: whoever sends it
// puts them back where it says [masked].
import type { Exchange } from './types';

/** What the client sets by itself, and would send twice. */
const OF_THE_CLIENT = ['content-length', 'host', 'connection', 'upgrade', 'http2-settings', 'expect', 'transfer-encoding', 'traceparent'];

function headers(exchange: Exchange): [string, string][] {
  return exchange.request.headers.filter(([name]) => !OF_THE_CLIENT.includes(name.toLowerCase()));
}

/** For the shells of POSIX: in single quotes nothing means anything but the quote itself. */
export function curlForBash(exchange: Exchange): string {
  return curl('curl', exchange, (text) => "'" + text.replaceAll("'", "'\\''") + "'", ' \\\n  ');
}

/** For PowerShell: a quote is doubled, and a line goes on behind a backtick. Its own `curl` may be another command. */
export function curlForPowerShell(exchange: Exchange): string {
  return curl('curl.exe', exchange, (text) => "'" + text.replaceAll("'", "''").replaceAll('"', '\\"') + "'", ' `\n  ');
}

function curl(command: string, exchange: Exchange, quoted: (text: string) => string, separator: string): string {
  const parts = [`${command} -X ${exchange.method} ${quoted(exchange.url)}`];
  const form = exchange.request.body?.parts;
  for (const [name, value] of headers(exchange)) if (!form || !/^content-type$/i.test(name)) parts.push(`-H ${quoted(`${name}: ${value}`)}`);
  const body = exchange.request.body;
  if (form)
    for (const part of form) {
      const value = part.body.inline !== undefined && part.fileName === undefined ? part.body.inline : `@${part.fileName ?? part.name}`;
      parts.push(`${value.startsWith('@') ? '-F' : '--form-string'} ${quoted(`${part.name}=${value}`)}`);
    }
  else if (body?.inline !== undefined) parts.push(`--data-raw ${quoted(body.inline)}`);
  else if (body) parts.push(`--data-binary ${quoted('@request-body')}`);
  return parts.join(separator);
}

/** For the JDK's own client. */
export function javaCode(exchange: Exchange): string {
  const text = (value: string) => JSON.stringify(value); // Java escapes what JSON escapes
  const body = exchange.request.body;
  const publisher =
    body === undefined
      ? 'HttpRequest.BodyPublishers.noBody()'
      : body.inline !== undefined
        ? `HttpRequest.BodyPublishers.ofString(${text(body.inline)})`
        : 'HttpRequest.BodyPublishers.ofFile(Path.of("request-body"))';
  const parts = body?.parts?.map((part) => part.fileName ?? part.name);
  return [
    ...(parts ? [`// The body had parts, which the JDK's client does not join: ${parts.join(', ')}`] : []),
    `HttpRequest request = HttpRequest.newBuilder(URI.create(${text(exchange.url)}))`,
    ...headers(exchange).map(([name, value]) => `        .header(${text(name)}, ${text(value)})`),
    `        .method(${text(exchange.method)}, ${publisher})`,
    '        .build();',
    'HttpResponse<String> response = HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofString());',
  ].join('\n');
}
