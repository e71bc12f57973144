// What the browser's console said and what it asked of the network: folded away until somebody wants it.
import { seek } from './film';
import { texts } from './store';
import { bytes, count, duration, offset } from './text';
import type { ConsoleLine, NetworkRequest, Paper } from './types';

interface Props {
  papers: Paper[];
  /** When the worker began, whose clock the lines are told by. */
  began: number;
  start: number;
  filmed: boolean;
}

export function Heard({ papers, began, start, filmed }: Props) {
  const consoles = papers.filter((paper) => paper.kind === 'console' && paper.text);
  const networks = papers.filter((paper) => paper.kind === 'network' && paper.text);
  const time = (at: number) => <At at={began + at} start={start} filmed={filmed} />;
  return (
    <>
      {consoles.slice(-1).map((paper) => (
        <Console key={paper.text} lines={read<ConsoleLine>(paper)} time={time} />
      ))}
      {networks.slice(-1).map((paper) => (
        <Network key={paper.text} requests={read<NetworkRequest>(paper)} time={time} />
      ))}
    </>
  );
}

function read<T>(paper: Paper): T[] {
  const text = texts.get(paper.text!).value;
  if (text.state !== 'here') return [];
  try {
    const lines: unknown = JSON.parse(text.value.text);
    return Array.isArray(lines) ? (lines as T[]) : [];
  } catch {
    return []; // it was cut, or is of a newer format; it can still be read as a paper
  }
}

function Console({ lines, time }: { lines: ConsoleLine[]; time(at: number): preact.ComponentChild }) {
  const errors = lines.filter((line) => line.level === 'error').length;
  return (
    <details class="heard" open={errors > 0}>
      <summary>
        Console, {count(lines.length, 'line')}
        {errors > 0 && <b class="failed">, {count(errors, 'error')}</b>}
      </summary>
      <ol>
        {lines.map((line, index) => (
          <li key={index} class={`log ${line.level}`}>
            {time(line.at)}
            <span class="level">{line.level}</span>
            <span class="said">{line.text}</span>
            <span class="dim place">{line.place}</span>
          </li>
        ))}
      </ol>
    </details>
  );
}

function Network({ requests, time }: { requests: NetworkRequest[]; time(at: number): preact.ComponentChild }) {
  const bad = requests.filter(isBad).length;
  return (
    <details class="heard">
      <summary>
        Network, {count(requests.length, 'request')}
        {bad > 0 && <b class="failed">, {bad} not answered well</b>}
      </summary>
      <ol>
        {requests.map((request, index) => (
          <li key={index} class={isBad(request) ? 'bad' : ''}>
            {time(request.at)}
            <span class="status">{request.failure ? 'failed' : (request.status ?? 'open')}</span>
            <span class="said" title={request.url}>
              {request.method} {short(request.url)} <span class="dim">{request.failure ?? request.type}</span>
            </span>
            <span class="dim place">
              {request.micros !== undefined && duration(request.micros)} {request.bytes !== undefined && bytes(request.bytes)}
            </span>
          </li>
        ))}
      </ol>
    </details>
  );
}

function isBad(request: NetworkRequest): boolean {
  return request.failure !== undefined || (request.status ?? 0) >= 400;
}

/** Without the origin, where there is a path to tell requests apart. */
function short(url: string): string {
  try {
    const { protocol, host, pathname, search } = new URL(url);
    return protocol.startsWith('http') ? pathname + search + (pathname === '/' ? ` on ${host}` : '') : url;
  } catch {
    return url;
  }
}

export function At({ at, start, filmed }: { at: number; start: number; filmed: boolean }) {
  const title = `${at - start} µs`;
  if (!filmed) return <time title={title}>{offset(at - start)}</time>;
  return (
    <time title={title}>
      <button class="seek" onClick={() => seek(at)} title={`${title}; shows this moment in the film`}>
        {offset(at - start)}
      </button>
    </time>
  );
}
