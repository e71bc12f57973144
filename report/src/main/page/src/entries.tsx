// The account: the time at the left margin, what happened in the middle, the papers in the right margin.
import type { ComponentChildren } from 'preact';
import { Slips } from './reader';
import { FailureBox } from './failure';
import { Mark } from './mark';
import { duration, offset } from './text';
import type { Check, Entry, Failure, Log, Paper, Step } from './types';

type Line = { depth: number; at: number } & (
  | { step: Step }
  | { note: string; thread?: string | undefined }
  | { log: Log }
  | { check: Check }
  | { papers: Paper[] }
);

interface Props {
  entries: Entry[];
  /** The moment that the times are counted from. */
  start: number;
  /** What is told above already, and only pointed to in here. */
  failure: Failure | undefined;
}

export function Entries({ entries, start, failure }: Props) {
  const lines: Line[] = [];
  flatten(entries, 0, lines);
  const papers = lines.flatMap((line) => ('papers' in line ? line.papers : []));
  return (
    <ol class="account">
      {lines.map((line, index) => (
        <li key={index} class={`entry depth-${Math.min(line.depth, 6)}`}>
          <time title={`${line.at - start} µs`}>{offset(line.at - start)}</time>
          {'step' in line && <StepLine step={line.step} failure={failure} />}
          {'note' in line && (
            <div class="note">
              {line.thread && <span class="thread">{line.thread}</span>}
              {line.note}
            </div>
          )}
          {'log' in line && <LogLine log={line.log} />}
          {'check' in line && <CheckLine check={line.check} />}
          {'papers' in line && (
            <>
              <div class="paper-names">
                <Leader>{line.papers.map((paper) => paper.name).join(', ')}</Leader>
              </div>
              <Slips papers={line.papers} all={papers} />
            </>
          )}
        </li>
      ))}
    </ol>
  );
}

function StepLine({ step, failure }: { step: Step; failure: Failure | undefined }) {
  // Not by the stack trace: a framework may cut it between the step's end and the test's.
  const told = failure !== undefined && step.failure?.type === failure.type && step.failure.message === failure.message;
  return (
    <div class={`step ${step.outcome}`}>
      <Mark outcome={step.outcome} />
      {step.kind && <span class="kind">{step.kind}</span>}
      <span class="step-name">{step.name}</span>
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
    else if (entry.is === 'data') lines.push({ depth, at: entry.at, note: `${entry.name} = ${entry.value}` });
    else if (last && 'papers' in last && last.depth === depth) last.papers.push(entry);
    else lines.push({ depth, at: entry.at, papers: [entry] });
  }
}
