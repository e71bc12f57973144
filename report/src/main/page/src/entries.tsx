// The account: the time at the left margin, what happened in the middle, the papers in the right margin.
import type { ComponentChildren } from 'preact';
import { useEffect, useMemo, useRef } from 'preact/hooks';
import { ExchangeLine, short } from './exchange';
import { Film, playing, reached, seek, type Filmed } from './film';
import { At } from './heard';
import { Slips } from './reader';
import { FailureBox } from './failure';
import { Mark } from './mark';
import { count, duration } from './text';
import type { Check, Entry, Exchange, Failure, Log, Paper, Step } from './types';

type Line = { depth: number; at: number } & (
  | { step: Step }
  | { note: string; thread?: string | undefined }
  | { log: Log }
  | { check: Check }
  | { exchange: Exchange }
  | { papers: Paper[] }
);

/** What has a place of its own beside the account. */
const ELSEWHERE = ['video', 'filmstrip', 'console', 'network'];

interface Props {
  entries: Entry[];
  /** The moment that the times are counted from. */
  start: number;
  /** What is told above already, and only pointed to in here. */
  failure: Failure | undefined;
  film?: Filmed | undefined;
}

export function Entries({ entries, start, failure, film }: Props) {
  const lines = useMemo(() => {
    const flat: Line[] = [];
    flatten(entries, 0, flat);
    return flat;
  }, [entries]);
  const moments = useMemo(() => lines.map((line) => line.at), [lines]);
  const place = useMemo(() => reached(moments), [moments]).value;
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    if (playing.value && place >= 0) list.current?.children[place]?.scrollIntoView({ block: 'nearest' });
  }, [place]);
  const papers = lines.flatMap((line) => ('papers' in line ? line.papers : []));
  const account = (
    <ol class="account" ref={list}>
      {lines.map((line, index) => (
        <li
          key={index}
          class={`entry depth-${Math.min(line.depth, 6)} ${index === place ? 'now' : ''}`}
          onClick={film && ((event) => seekFrom(event, line.at))}
        >
          <At at={line.at} start={start} filmed={film !== undefined} />
          <LineContent line={line} failure={failure} papers={papers} />
        </li>
      ))}
    </ol>
  );
  if (!film) return account;
  return (
    <div class="beside-film">
      {account}
      <Film film={film} start={start} ticks={moments} caption={place < 0 ? 'Choose a line, or play' : said(lines[place]!)} />
    </div>
  );
}

/** A click on a line means its moment, unless it means something in the line, or marks text. */
function seekFrom(event: MouseEvent, at: number): void {
  const target = event.target as Element;
  if (target.closest('a, button, summary, details, input') || getSelection()?.toString()) return;
  seek(at);
}

function said(line: Line): string {
  if ('step' in line) return line.step.kind === 'browser' ? line.step.name.replace(/\*| \[.*\]$/g, '') : line.step.name;
  if ('note' in line) return line.note;
  if ('log' in line) return line.log.text;
  if ('check' in line) return line.check.name;
  if ('exchange' in line) return `${line.exchange.method} ${short(line.exchange.url)}`;
  return line.papers.map((paper) => paper.name).join(', ');
}

function LineContent({ line, failure, papers }: { line: Line; failure: Failure | undefined; papers: Paper[] }) {
  if ('step' in line) return <StepLine step={line.step} failure={failure} />;
  if ('log' in line) return <LogLine log={line.log} />;
  if ('check' in line) return <CheckLine check={line.check} />;
  if ('exchange' in line) return <ExchangeLine exchange={line.exchange} />;
  if ('note' in line)
    return (
      <div class="note">
        {line.thread && <span class="thread">{line.thread}</span>}
        {line.note}
      </div>
    );
  return (
    <>
      <div class="paper-names">
        <Leader>{line.papers.map((paper) => paper.name).join(', ')}</Leader>
      </div>
      <Slips papers={line.papers} all={papers} />
      {line.papers.map((paper, index) => (
        <Held key={index} paper={paper} />
      ))}
    </>
  );
}

function StepLine({ step, failure }: { step: Step; failure: Failure | undefined }) {
  // Not by the stack trace: a framework may cut it between the step's end and the test's.
  const told = failure !== undefined && step.failure?.type === failure.type && step.failure.message === failure.message;
  return (
    <div class={`step ${step.outcome}`}>
      <Mark outcome={step.outcome} />
      {step.kind && step.kind !== 'browser' && <span class="kind">{step.kind}</span>}
      <span class="step-name">{step.kind === 'browser' ? <BrowserAct name={step.name} /> : step.name}</span>
      <span class="took">{duration(step.took)}</span>
      {step.thread && <span class="thread">{step.thread}</span>}
      {step.outcome === 'unfinished' && <span class="unfinished">not finished</span>}
      {step.budget !== undefined && step.took > step.budget && <span class="over">longer than {duration(step.budget)}</span>}
      {step.reason && <span class="why">{step.reason}</span>}
      {told && <p class="step-said">{step.failure?.message?.trim().split('\n')[0] ?? step.failure?.type}</p>}
      {step.failure && !told && <FailureBox failure={step.failure} />}
    </div>
  );
}

/** `click *Swap* [#swap button]`: the name as people see it, and the locator small behind it. */
function BrowserAct({ name }: { name: string }) {
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
    <div class={`note log ${log.level}`} title={log.context}>
      <span class="level">{log.level}</span>
      {log.thread && <span class="thread">{log.thread}</span>}
      <span class="logger">{log.logger}</span> {log.text}
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
      <span class="kind">check</span>
      <span class="step-name">{check.name}</span>
      {check.failure && <p class="step-said">{check.failure.message?.trim().split('\n')[0] ?? check.failure.type}</p>}
    </div>
  );
}

/** What an HTTP archive holds. */
function Held({ paper }: { paper: Paper }) {
  if (paper.unread) return <div class="held reason">{paper.name} cannot be read as an HTTP archive: {paper.unread}</div>;
  if (!paper.exchanges) return null;
  const more = (paper.held ?? 0) - paper.exchanges.length;
  return (
    <div class="held">
      <details>
        <summary>
          {count(paper.held ?? 0, 'exchange')} in {paper.name}
        </summary>
        {paper.exchanges.map((exchange, index) => (
          <ExchangeLine key={index} exchange={exchange} />
        ))}
        {more > 0 && <p class="dim">and {count(more, 'exchange')} more in the file</p>}
      </details>
    </div>
  );
}

function Leader({ children }: { children: ComponentChildren }) {
  return <span class="leader">{children}</span>;
}

function flatten(entries: Entry[], depth: number, lines: Line[]): void {
  for (const entry of entries) {
    const last = lines.at(-1);
    if (entry.is === 'step') {
      lines.push({ depth, at: entry.at, step: entry });
      flatten(entry.entries, depth + 1, lines);
    } else if (entry.is === 'note') lines.push({ depth, at: entry.at, note: entry.text, thread: entry.thread });
    else if (entry.is === 'log') lines.push({ depth, at: entry.at, log: entry });
    else if (entry.is === 'check') lines.push({ depth, at: entry.at, check: entry });
    else if (entry.is === 'exchange') lines.push({ depth, at: entry.at, exchange: entry });
    else if (entry.is === 'data') lines.push({ depth, at: entry.at, note: `${entry.name} = ${entry.value}` });
    else if (ELSEWHERE.includes(entry.kind) && entry.href) continue;
    else if (last && 'papers' in last && last.depth === depth) last.papers.push(entry);
    else lines.push({ depth, at: entry.at, papers: [entry] });
  }
}
