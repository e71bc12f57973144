// The first view: what the run came to, in a sentence; all tests as a strip; why tests failed.
import { Mark } from './mark';
import { needsAttention, outcomesIn, outcomeText, testLink, testsLink } from './store';
import { Strip } from './strip';
import { count, day, durationText, moment, whole } from './text';
import type { RunData } from './types';

const SLOWEST = 5;

export function Summary({ data }: { data: RunData }) {
  const tests = data.rows.filter((row) => !row.container && !row.superseded);
  return (
    <main class="summary">
      <p class="dateline">
        {moment(data.started, 0)}, {durationText(data.duration)}
        {data.workers.length > 1 && `, on ${data.workers.length} workers`}
      </p>
      <h1 class="sentence">{data.sentence}</h1>
      {data.earlier && <News data={data} last={data.earlier.last} />}
      {data.incomplete && <p class="incomplete">{data.incomplete}</p>}
      <Strip rows={tests} duration={data.duration} />
      <ul class="counts">
        {outcomesIn(data)
          .map((outcome) => (
            <li key={outcome}>
              <a href={testsLink({ outcome })}>
                <Mark outcome={outcome} /> <b>{whole(data.counts[outcome]!)}</b> {outcomeText(outcome)}
              </a>
            </li>
          ))}
      </ul>
      <div class="columns">
        <Reasons data={data} />
        <aside>
          <Slowest data={data} />
          <Facts data={data} />
        </aside>
      </div>
      <Problems data={data} />
    </main>
  );
}

/** How many of them somebody has not seen before. */
function News({ data, last }: { data: RunData; last: string }) {
  const failing = data.rows.filter((row) => !row.container && !row.superseded && needsAttention(row.outcome));
  if (failing.length === 0) return null;
  const fresh = failing.filter((row) => row.fresh).length;
  const since = `since ${day(last)}`;
  if (fresh === 0) return <p class="news">None of them is new {since}.</p>;
  return (
    <p class="news">
      <a href={testsLink({ news: 'new' })}>{fresh === failing.length ? 'All of them are' : fresh === 1 ? '1 of them is' : `${whole(fresh)} of them are`} new</a> {since}
      {data.earlier && `, compared with ${count(data.earlier.runs, 'earlier run')}`}.
    </p>
  );
}

function Reasons({ data }: { data: RunData }) {
  return (
    <section class="reasons">
      <h2>Reasons</h2>
      {data.reasons.length === 0 && <p class="dim">Nothing failed.</p>}
      <ol>
        {data.reasons.map((reason, index) => (
          <li key={index}>
            <h3>{reason.title}</h3>
            {reason.evidence && <p class="code evidence">{reason.evidence}</p>}
            <p class="dim code">
              {shortType(reason.type)}
              {reason.frame && <span> at {shortFrame(reason.frame)}</span>}
              {data.earlier && <span class="since">{reason.since ? `since ${day(reason.since)}, in ${count(reason.runs ?? 0, 'earlier run')}` : 'new'}</span>}
            </p>
            <ul class="reason-tests">
              {reason.tests.slice(0, 8).map((test) => {
                const row = data.rows[test]!;
                return (
                  <li key={test}>
                    <Mark outcome={row.outcome} />{' '}
                    <span class="dim">{row.path.length > 0 && `${row.path[0]} › `}</span>
                    <a href={testLink(row.id)}>{row.name}</a>
                  </li>
                );
              })}
            </ul>
            {reason.tests.length > 8 && (
              <a href={testsLink({ group: 'reason' })}>and {count(reason.tests.length - 8, 'more test')}</a>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

function Slowest({ data }: { data: RunData }) {
  const slowest = data.rows
    .filter((row) => !row.container && !row.superseded)
    .toSorted((a, b) => b.duration - a.duration)
    .slice(0, SLOWEST);
  return (
    <section>
      <h2>Slowest</h2>
      <ol class="slowest">
        {slowest.map((row) => (
          <li key={row.id}>
            <span class="time">{durationText(row.duration)}</span>
            <a href={testLink(row.id)}>{row.name}</a>
          </li>
        ))}
      </ol>
    </section>
  );
}

function Facts({ data }: { data: RunData }) {
  return (
    <section>
      <h2>Facts</h2>
      <dl class="facts">
        {data.facts.map(([name, value]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {data.overhead > 0 && <p class="dim">Overhead of recording: {(100 * data.overhead).toFixed(data.overhead < 0.01 ? 2 : 1)} % of the tests' time</p>}
      <p>
        <a href={testLink('run')}>What happened outside tests</a>
      </p>
    </section>
  );
}

function Problems({ data }: { data: RunData }) {
  if (data.problems.length === 0) return null;
  return (
    <details class="problems" open={data.problems.length < 6}>
      <summary>{count(data.problems.length, 'problem')} in recording or reading this run</summary>
      <ul class="code">
        {data.problems.map((problem, index) => (
          <li key={index}>{problem}</li>
        ))}
      </ul>
    </details>
  );
}

function shortType(type: string): string {
  return type.slice(type.lastIndexOf('.') + 1);
}

/** `dev.orto.RotaTest.swaps(RotaTest.java:31)` is read by its end. */
function shortFrame(frame: string): string {
  return frame.match(/\(([^)]*)\)$/)?.[1] ?? frame;
}
