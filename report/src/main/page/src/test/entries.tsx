// The account: the time at the left margin, what happened in the middle, the attachments in the right margin.
import type { ComponentChildren } from 'preact';
import { useContext, useEffect, useMemo, useRef } from 'preact/hooks';
import { Open } from '../exchanges/comparison';
import { ExchangeLine, short } from '../exchanges/exchange';
import { FEWEST, isSameRequest, PolledLine } from '../exchanges/polled';
import { RecordingPlayer } from './video';
import { address } from '../data/packed';
import { playing, reached, seek, type Recording } from './playback';
import { Moment } from './moment';
import { Thumbnails } from '../attachments/viewer';
import { FailureBox } from './failure';
import { Mark } from '../marks/mark';
import { route, testLink } from '../data/route';
import { count, durationText } from '../words/text';
import type { Attachment, Check, Entry, Exchange, Failure, Log, Step, Unknown } from '../data/types';
import { known, t } from '../words/texts';

type Line = { depth: number; at: number } & (
  | { step: Step }
  | { log: Log }
  | { check: Check }
  | { exchange: Exchange }
  | { polled: Exchange[] }
  | { attachments: Attachment[] }
  | { pending: string }
  | { unknown: Unknown }
);

/** What is shown elsewhere in the view, where the page has it. */
function isElsewhere({ kind, href }: Attachment): boolean {
  if (kind === 'console' || kind === 'network') return href !== undefined;
  return (kind === 'video' || kind === 'frames') && href !== undefined && address(href) !== undefined;
}

interface Props {
  entries: Entry[];
  /** The moment that the times are counted from. */
  start: number;
  /** What is shown above already, and only pointed to in here. */
  failure: Failure | undefined;
  recording?: Recording | undefined;
}

export function Entries({ entries, start, failure, recording }: Props) {
  const lines = useMemo(() => {
    const flat: Line[] = [];
    flatten(entries, 0, flat);
    return folded(flat);
  }, [entries]);
  const moments = useMemo(() => lines.map((line) => line.at), [lines]);
  const position = useMemo(() => reached(moments), [moments]).value;
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    if (playing.value && position >= 0) list.current?.children[position]?.scrollIntoView({ block: 'nearest' });
  }, [position]);
  const open = useContext(Open);
  const id = open?.data.rows[open.position]?.id ?? 'run';
  const linked = Number(route.value.params.get('line') ?? 0) - 1;
  useEffect(() => list.current?.children[linked]?.scrollIntoView({ block: 'center' }), [linked]);
  const longest = useMemo(() => lines.reduce((sum, line) => (line.depth === 0 && 'step' in line ? sum + line.step.duration : sum), 0), [lines]);
  const attachments = lines.flatMap((line) => ('attachments' in line ? line.attachments : []));
  const lineList = (
    <ol class="entries" ref={list}>
      {lines.map((line, index) => (
        <li
          key={index}
          class={`entry depth-${Math.min(line.depth, 6)} ${index === position ? 'now' : ''} ${index === linked ? 'linked' : ''}`}
          aria-current={index === linked ? 'location' : undefined}
          onClick={recording && ((event) => seekFrom(event, line.at))}
        >
          <Moment at={line.at} start={start} recorded={recording !== undefined} />
          <LineContent line={line} before={exchangeBefore(lines, index)} failure={failure} attachments={attachments} longest={longest} />
          <a class="to-line" href={`${testLink(id)}?line=${index + 1}`} title={t('The address of this line')} tabIndex={'step' in line ? 0 : -1}>
            ¶<span class="visually-hidden"> {t('line {0}', index + 1)}</span>
          </a>
        </li>
      ))}
    </ol>
  );
  if (!recording) return lineList;
  return (
    <div class="beside-video">
      {lineList}
      <RecordingPlayer recording={recording} start={start} ticks={moments} caption={position < 0 ? t('Choose a line, or play') : captionOf(lines[position]!)} />
    </div>
  );
}

/** A click on a line means its moment, unless it means something in the line, or marks text. */
function seekFrom(event: MouseEvent, at: number): void {
  const target = event.target as Element;
  if (target.closest('a, button, summary, details, input') || getSelection()?.toString()) return;
  seek(at);
}

function captionOf(line: Line): string {
  if ('step' in line) return line.step.kind === 'browser' ? line.step.name.replace(/\*| \[.*\]$/g, '') : line.step.name;
  if ('log' in line) return line.log.text;
  if ('check' in line) return line.check.name;
  if ('polled' in line) return `${line.polled[0]!.method} ${short(line.polled[0]!.url)}`;
  if ('exchange' in line) return `${line.exchange.method} ${short(line.exchange.url)}`;
  if ('pending' in line) return line.pending;
  if ('unknown' in line) return line.unknown.word;
  return line.attachments.map((attachment) => attachment.name).join(', ');
}

/** The exchange before a line, where nothing but log lines stands between. */
function exchangeBefore(lines: Line[], index: number): Exchange | undefined {
  let at = index - 1;
  while (at >= 0 && 'log' in lines[at]!) at--;
  const line = lines[at];
  return line && 'exchange' in line ? line.exchange : undefined;
}

interface ContentProps {
  line: Line;
  before: Exchange | undefined;
  failure: Failure | undefined;
  attachments: Attachment[];
  /** The time of all steps together, of which each is a share. */
  longest: number;
}

function LineContent({ line, before, failure, attachments, longest }: ContentProps) {
  if ('step' in line) return <StepLine step={line.step} failure={failure} longest={longest} />;
  if ('log' in line) return <LogLine log={line.log} />;
  if ('check' in line) return <CheckLine check={line.check} />;
  if ('exchange' in line) return <ExchangeLine exchange={line.exchange} before={before} />;
  if ('polled' in line) return <PolledLine exchanges={line.polled} />;
  if ('unknown' in line) return <UnknownLine unknown={line.unknown} />;
  if ('pending' in line)
    return (
      <div class="log-line missing">
        <b>{line.pending}</b> {t('was to be attached later and never came')}
      </div>
    );
  return (
    <>
      <div class="attachment-names">
        <DottedLine>{line.attachments.map((attachment) => attachment.name).join(', ')}</DottedLine>
      </div>
      <Thumbnails attachments={line.attachments} all={attachments} />
      {line.attachments.map((attachment, index) => (
        <ArchiveContent key={index} attachment={attachment} />
      ))}
    </>
  );
}

const LEAST_SHARE = 0.02;

/** How much of the test's time a step took, where that is something. */
function Share({ of, longest }: { of: number; longest: number }) {
  const share = longest > 0 ? Math.min(1, of / longest) : 0;
  if (share < LEAST_SHARE) return null;
  return <span class="share-of" style={{ width: `${(share * 6).toFixed(2)}rem` }} title={t('{0} % of the time of the steps', Math.round(share * 100))} />;
}

function StepLine({ step, failure, longest }: { step: Step; failure: Failure | undefined; longest: number }) {
  // Not by the stack trace: a framework may cut it between the step's end and the test's.
  const shownAbove = failure !== undefined && step.failure?.type === failure.type && step.failure.message === failure.message;
  return (
    <div class={`step ${step.outcome}`}>
      <Mark outcome={step.outcome} />
      {step.kind && step.kind !== 'browser' && <span class="kind">{known(step.kind)}</span>}
      <span class="step-name">{step.kind === 'browser' ? <BrowserAction name={step.name} /> : step.name}</span>
      <span class="duration">{durationText(step.duration)}</span>
      <Share of={step.duration} longest={longest} />
      {step.thread && <span class="thread">{step.thread}</span>}
      {step.outcome === 'unfinished' && <span class="unfinished">{t('not finished')}</span>}
      {step.budget !== undefined && step.duration > step.budget && <span class="over">{t('longer than {0}', durationText(step.budget))}</span>}
      {step.reason && <span class="why">{step.reason}</span>}
      {step.table && <StepTable rows={step.table} />}
      {step.below && <pre class="below">{step.below}</pre>}
      {shownAbove && <p class="step-message">{step.failure?.message?.trim().split('\n')[0] ?? step.failure?.type}</p>}
      {step.failure && !shownAbove && <FailureBox failure={step.failure} />}
    </div>
  );
}

/** Of a step in plain language. Whether its first row is a head is not said; it is drawn as one where all rows are as long. */
function StepTable({ rows }: { rows: string[][] }) {
  const head = rows.length > 1 && rows[0]!.length > 1;
  return (
    <table class="step-table">
      {rows.map((row, index) => (
        <tr key={index} class={head && index === 0 ? 'head' : undefined}>
          {row.map((cell, column) => (
            <td key={column}>{cell}</td>
          ))}
        </tr>
      ))}
    </table>
  );
}

/** `click *Swap* [#swap button]`: the name as people see it, and the locator small behind it. */
function BrowserAction({ name }: { name: string }) {
  const [, words = name, locator] = /^(.*) \[(.*)\]$/s.exec(name) ?? [];
  return (
    <>
      {words.split('*').map((part, index) => (index % 2 === 1 ? <em key={index}>{part}</em> : part))}
      {locator && <span class="locator">{locator}</span>}
    </>
  );
}

function LogLine({ log }: { log: Log }) {
  return (
    <div class={`log-line ${log.logger === undefined ? 'own' : 'log'} ${log.level ?? ''}`} title={log.context}>
      {log.level && <span class="level">{log.level}</span>}
      {log.thread && <span class="thread">{log.thread}</span>}
      {log.logger && <span class="logger">{log.logger}</span>}
      {log.marker && <span class="thread marker">{log.marker}</span>}
      {(log.level || log.thread || log.logger || log.marker) && ' '}
      {log.text}
      {log.failure && (
        <details>
          <summary>{log.failure.type}</summary>
          <pre class="stack">{log.failure.stack}</pre>
        </details>
      )}
    </div>
  );
}

function CheckLine({ check }: { check: Check }) {
  return (
    <div class={`step ${check.outcome}`}>
      <Mark outcome={check.outcome} />
      <span class="kind">{t('check')}</span>
      <span class="step-name">{check.name}</span>
      {check.actual !== undefined && <code class="found">{check.actual}</code>}
      {check.failure && <p class="step-message">{check.failure.message?.trim().split('\n')[0] ?? check.failure.type}</p>}
    </div>
  );
}

/** Something of a later version: its word, and all of it on demand. */
function UnknownLine({ unknown }: { unknown: Unknown }) {
  return (
    <details class="log-line unknown">
      <summary>
        <b>{unknown.word}</b> {t('is of a later version of Verbale')}
      </summary>
      <pre>{unknown.json}</pre>
    </details>
  );
}

/** What an HTTP archive holds. */
function ArchiveContent({ attachment }: { attachment: Attachment }) {
  if (attachment.unread) return <div class="archive reason">{t('{0} cannot be read as an HTTP archive:', attachment.name)} {attachment.unread}</div>;
  if (!attachment.exchanges) return null;
  const more = (attachment.held ?? 0) - attachment.exchanges.length;
  return (
    <div class="archive">
      <details>
        <summary>
          {t('{0} in {1}', count(attachment.held ?? 0, 'exchange'), attachment.name)}
        </summary>
        {attachment.exchanges.map((exchange, index) => (
          <ExchangeLine key={index} exchange={exchange} />
        ))}
        {more > 0 && <p class="dim">{t('and {0} more in the file', count(more, 'exchange'))}</p>}
      </details>
    </div>
  );
}

function DottedLine({ children }: { children: ComponentChildren }) {
  return <span class="leader">{children}</span>;
}

/** What was asked again and again, with nothing between, as one line. */
function folded(lines: Line[]): Line[] {
  const result: Line[] = [];
  for (let from = 0; from < lines.length; ) {
    const first = lines[from]!;
    let to = from + 1;
    if ('exchange' in first) while (to < lines.length && isAgain(first.exchange, first.depth, lines[to]!)) to++;
    const again = lines.slice(from, to).flatMap((line) => ('exchange' in line ? [line.exchange] : []));
    if (again.length >= FEWEST) result.push({ depth: first.depth, at: first.at, polled: again });
    else result.push(...lines.slice(from, to));
    from = to;
  }
  return result;
}

function isAgain(exchange: Exchange, depth: number, line: Line): boolean {
  return 'exchange' in line && line.depth === depth && isSameRequest(exchange, line.exchange);
}

function flatten(entries: Entry[], depth: number, lines: Line[]): void {
  for (const entry of entries) {
    const last = lines.at(-1);
    if (entry.type === 'step') {
      lines.push({ depth, at: entry.at, step: entry });
      flatten(entry.entries, depth + 1, lines);
    } else if (entry.type === 'unknown') {
      lines.push({ depth, at: entry.at, unknown: entry });
      flatten(entry.entries, depth + 1, lines);
    } else if (entry.type === 'pending') lines.push({ depth, at: entry.at, pending: entry.name });
    else if (entry.type === 'log') lines.push({ depth, at: entry.at, log: entry });
    else if (entry.type === 'check') lines.push({ depth, at: entry.at, check: entry });
    else if (entry.type === 'exchange') lines.push({ depth, at: entry.at, exchange: entry });
    else if (entry.type === 'data') lines.push({ depth, at: entry.at, log: { type: 'log', at: entry.at, text: `${entry.name} = ${entry.value}` } });
    else if (isElsewhere(entry)) continue;
    else if (last && 'attachments' in last && last.depth === depth) last.attachments.push(entry);
    else lines.push({ depth, at: entry.at, attachments: [entry] });
  }
}
