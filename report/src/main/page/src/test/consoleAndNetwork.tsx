// What the browser's console said and what it asked of the network: folded away until somebody wants it.
import { Moment } from './moment';
import { texts } from '../data/loaded';
import { bytes, count, durationText} from '../words/text';
import type { ConsoleLine, NetworkRequest, Attachment } from '../data/types';
import { t } from '../words/texts';

interface Props {
  attachments: Attachment[];
  /** When the worker began, on whose clock the lines are. */
  began: number;
  start: number;
  recorded: boolean;
}

export function ConsoleAndNetwork({ attachments, began, start, recorded }: Props) {
  const consoles = attachments.filter((attachment) => attachment.kind === 'console' && attachment.text);
  const networks = attachments.filter((attachment) => attachment.kind === 'network' && attachment.text);
  const time = (at: number) => <Moment at={began + at} start={start} recorded={recorded} />;
  return (
    <>
      {consoles.slice(-1).map((attachment) => (
        <Console key={attachment.text} lines={read<ConsoleLine>(attachment)} time={time} />
      ))}
      {networks.slice(-1).map((attachment) => (
        <Network key={attachment.text} requests={read<NetworkRequest>(attachment)} time={time} />
      ))}
    </>
  );
}

function read<T>(attachment: Attachment): T[] {
  const text = texts.get(attachment.text!).value;
  if (text.state !== 'here') return [];
  try {
    const lines: unknown = JSON.parse(text.value.text);
    return Array.isArray(lines) ? (lines as T[]) : [];
  } catch {
    return []; // it was cut, or is of a newer format; it can still be read as an attachment
  }
}

function Console({ lines, time }: { lines: ConsoleLine[]; time(at: number): preact.ComponentChild }) {
  const errors = lines.filter((line) => line.level === 'error').length;
  return (
    <details class="captured" open={errors > 0}>
      <summary>
        {t('Console')}, {count(lines.length, 'line')}
        {errors > 0 && <b class="failed">, {count(errors, 'error')}</b>}
      </summary>
      <ol>
        {lines.map((line, index) => (
          <li key={index} class={`log ${line.level}`}>
            {time(line.at)}
            <span class="level">{line.level}</span>
            <span class="text">{line.text}</span>
            <span class="dim source">{line.source}</span>
          </li>
        ))}
      </ol>
    </details>
  );
}

function Network({ requests, time }: { requests: NetworkRequest[]; time(at: number): preact.ComponentChild }) {
  const bad = requests.filter(isBad).length;
  return (
    <details class="captured">
      <summary>
        {t('Network')}, {count(requests.length, 'request')}
        {bad > 0 && <b class="failed">, {count(bad, 'error')}</b>}
      </summary>
      <ol>
        {requests.map((request, index) => (
          <li key={index} class={isBad(request) ? 'bad' : ''}>
            {time(request.at)}
            <span class="status">{request.failure ? t('failed') : (request.status ?? t('open'))}</span>
            <span class="text" title={request.url}>
              {request.method} {short(request.url)} <span class="dim">{request.failure ?? request.type}</span>
            </span>
            <span class="dim source">
              {request.micros !== undefined && durationText(request.micros)} {request.bytes !== undefined && bytes(request.bytes)}
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
