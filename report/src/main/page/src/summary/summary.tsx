// The first view: what the run came to, in a sentence; the run in time; why tests failed; how they went by what they belong to.
import { Durations, RunsChart } from '../marks/charts';
import { ofThisRun } from '../runs/earlier';
import { Mark } from '../marks/mark';
import { address } from '../data/packed';
import { earlierLink, testLink, testsLink } from '../data/route';
import { isWhole } from '../data/types';
import { outcomesIn } from '../data/outcomes';
import { rowsLoaded } from '../data/loaded';
import { Strip } from './strip';
import { Tables } from './tables';
import { incompleteOf, outcomeOf, sentenceOf } from './sentence';
import { count, day, decimal, durationText, moment, whole } from '../words/text';
import { ReasonThere, RuleLine } from '../tests/rule';
import { sinceBaseline } from '../words/baseline';
import type { Progress, Reason, RunData, ShownRow } from '../data/types';
import { t } from '../words/texts';

const MAX_AFFECTED = 3;
const MAX_RUNNING = 12;

export function Summary({ data }: { data: RunData }) {
  return (
    <main class="summary">
      {data.subtitle && <p class="subtitle">{data.subtitle}</p>}
      <p class="dateline">
        {moment(data.started, 0)}, {durationText(data.duration)}
        {data.workers.length > 1 && t(', on {0} workers', data.workers.length)}
      </p>
      <h1 class="sentence">{sentenceOf(data)}</h1>
      {data.progress && <Going progress={data.progress} data={data} />}
      <News data={data} />
      {data.part && <p class="incomplete">{t('Only a part of the suite was run: {0}.', data.part)}</p>}
      {data.leftOut && <p class="incomplete">{t('Left out of this copy: {0}.', data.leftOut)}</p>}
      {data.incomplete && <p class="incomplete">{incompleteOf(data)}</p>}
      <Strip data={data} />
      <ul class="counts">
        {outcomesIn(data).map((outcome) => (
          <li key={outcome}>
            <a href={testsLink({ outcome })}>
              <Mark outcome={outcome} /> <b>{whole(data.counts[outcome]!)}</b> {outcomeOf(data.counts[outcome]!, outcome)}
            </a>
          </li>
        ))}
        {data.allFlaky > 0 && (
          <li>
            <a href={testsLink({ flaky: 'flaky' })}>
              <b>{whole(data.allFlaky)}</b> {outcomeOf(data.allFlaky, 'flaky')}
            </a>
          </li>
        )}
      </ul>
      <Meanings data={data} />
      <div class="columns">
        <Reasons data={data} />
        <aside>
          <Flaky data={data} />
          <Slowest data={data} />
          <HowLong data={data} />
          <LastRuns data={data} />
          <Facts data={data} />
        </aside>
      </div>
      <Tables tables={data.tables} />
      <Problems data={data} />
    </main>
  );
}

/** Of a run that is still going: how far it is, and what it is at. */
function Going({ progress, data }: { progress: Progress; data: RunData }) {
  const tests = progress.tests > 0 ? t('{0} of about {1}', count(data.tests, 'test'), whole(progress.tests)) : count(data.tests, 'test');
  const time = progress.duration > 0 ? t('{0} of about {1}', durationText(data.duration), durationText(progress.duration)) : durationText(data.duration);
  return (
    <section class="going" aria-label={t('How far the run is')}>
      {progress.tests + progress.duration > 0 && <progress max={1} value={progress.share} aria-label={`${Math.floor(progress.share * 100)} %`} />}
      <p>
        {t('{0} after {1}; this page follows the run.', tests, time)}
      </p>
      <ul>
        {progress.running.slice(0, MAX_RUNNING).map(([name, within, at, worker], index) => (
          <li key={index}>
            <span class="time">{durationText(Math.max(0, data.duration - at))}</span> {within && <span class="dim">{within} › </span>}
            {name} <span class="dim">{t('in {0}', worker)}</span>
          </li>
        ))}
      </ul>
      {progress.running.length > MAX_RUNNING && <p class="dim">{t('and {0} more are running', whole(progress.running.length - MAX_RUNNING))}</p>}
    </section>
  );
}

function attention(data: RunData): number {
  return ofThisRun(data)[3];
}

/** What is hurt, and how many of the failures somebody has not seen before. */
function News({ data }: { data: RunData }) {
  const failing = attention(data);
  if (failing === 0) return data.news && !data.progress ? <p class="news">{slowerOf(data.news.slower ?? 0)}</p> : null;
  return (
    <p class="news">
      <Fresh data={data} failing={failing} />
      <Affected data={data} />
    </p>
  );
}

function slowerOf(tests: number): string {
  if (tests === 0) return t('Nothing is slower than usual.');
  return tests === 1 ? t('1 test is slower than usual.') : t('{0} tests are slower than usual.', whole(tests));
}

/** What the outcomes mean that are not said every day. */
const MEANINGS = {
  errored: 'errored: something broke before the test could decide',
  unfinished: 'unfinished: it has no end, as when its JVM was killed',
  'expected-failure': 'expected failure: known to fail, and it does',
  aborted: 'aborted: the test gave up, as what it needs was not there',
} as const;

function Meanings({ data }: { data: RunData }) {
  const explained = Object.entries(MEANINGS).filter(([outcome]) => (data.counts[outcome] ?? 0) > 0);
  if (explained.length === 0) return null;
  return <p class="dim meanings">{explained.map(([, text]) => t(text)).join(' · ')}</p>;
}

function Fresh({ data, failing }: { data: RunData; failing: number }) {
  if (!data.news) return null;
  const fresh = data.news.tests;
  if (fresh === 0) return <>{t('None of them is new {0}.', sinceBaseline(data.news))} </>;
  return (
    <>
      <a href={testsLink({ news: 'new' })}>{fresh === failing ? t('All of them are new') : fresh === 1 ? t('1 of them is new') : t('{0} of them are new', whole(fresh))}</a>{' '}
      {sinceBaseline(data.news)}
      {data.news.flaky && `, ${data.news.flaky === 1 ? t('1 of a flaky test') : t('{0} of flaky tests', whole(data.news.flaky))}`}.{' '}
    </>
  );
}

/** Since when the reason is there without a gap; or when it was last, or that it never was. */
function sinceOf(reason: Reason): string {
  if (reason.since) return t('since {0}, in {1}', day(reason.since), count(reason.runs ?? 0, 'earlier run'));
  return reason.seen ? t('back again, last seen {0}', day(reason.seen)) : t('never seen before');
}

/** By name, where they are few enough to be said. */
function Affected({ data }: { data: RunData }) {
  const table = data.tables.find((one) => one.by === 'class');
  const hurt = table?.rows.filter(([, , failing]) => failing > 0) ?? [];
  if (!table || hurt.length === 0 || table.groups === 1) return null;
  const shown = hurt.slice(0, MAX_AFFECTED).map(([name]) => name.split(' › ')[0]!);
  const names = [...new Set(shown)];
  const linkOf = (name: string) => {
    const groups = table.rows.filter(([group]) => group === name || group.startsWith(name + ' › '));
    return testsLink(groups.length === 1 ? { class: groups[0]![0], failing: 'failing' } : { find: name, failing: 'failing' });
  };
  const more = hurt.length > MAX_AFFECTED;
  return (
    <>
      {names.map((name, index) => (
        <span key={name}>
          {index > 0 && (index === names.length - 1 && !more ? ` ${t('and')} ` : ', ')}
          <a href={linkOf(name)}>
            <bdi>{name}</bdi>
          </a>
        </span>
      ))}
      {more && (
        <>
          {` ${t('and')} `}
          <a href={testsLink({ failing: 'failing' })}>{t('others')}</a>
        </>
      )}
      {names.length === 1 && !more ? t(' is affected.') : t(' are affected.')}
    </>
  );
}

function Reasons({ data }: { data: RunData }) {
  const whole = data.reasons.filter(isWhole);
  return (
    <section class="reasons">
      <h2>{t('Reasons')}</h2>
      {data.reasons.length === 0 && <p class="dim">{attention(data) === 0 ? t('Nothing failed.') : t('What did not pass has no failure to compare.')}</p>}
      <ol>
        {whole.map((reason) => (
          <li key={reason.id}>
            <Shot reason={reason} />
            <h3 dir="auto">{reason.title}</h3>
            {reason.rules?.map((at) => <RuleLine key={at} rule={data.rules![at]!} />)}
            <ReasonThere data={data} id={reason.id} />
            {reason.evidence && <p class="code evidence">{reason.evidence}</p>}
            <p class="dim code">
              {shortType(reason.type)}
              {reason.frame && <span> {t('at {0}', shortFrame(reason.frame))}</span>}
              {data.earlier && <span class="since">{sinceOf(reason)}</span>}
            </p>
            <ul class="reason-tests">
              {reason.first.map((row) => (
                <li key={row.id}>
                  <Mark outcome={row.outcome} /> <Shown row={row} />
                </li>
              ))}
            </ul>
            {reason.tests > reason.first.length && (
              <a href={testsLink({ reason: reason.id })}>{t('and {0}', count(reason.tests - reason.first.length, 'more test'))}</a>
            )}
          </li>
        ))}
      </ol>
      {data.reasons.length > whole.length && (
        <p>
          <a href={testsLink({ group: 'reason', failing: 'failing' })}>{t('and {0}', count(data.reasons.length - whole.length, 'more reason'))}</a>
        </p>
      )}
    </section>
  );
}

/** What the browser showed when one of them failed. */
function Shot({ reason }: { reason: Reason }) {
  const [href, id, name] = reason.screenshot ?? [];
  const image = href && address(href);
  if (!image || !id) return null;
  return (
    <a class="shot" href={testLink(id)}>
      <img src={image} alt={t('The page in {0}', name!)} loading="lazy" />
    </a>
  );
}

function Shown({ row }: { row: ShownRow }) {
  return (
    <>
      {row.in && (
        <span class="dim">
          <bdi>{row.in}</bdi> ›{' '}
        </span>
      )}
      <a href={testLink(row.id)}>
        <bdi>{row.name}</bdi>
      </a>
    </>
  );
}

function Flaky({ data }: { data: RunData }) {
  if (data.allFlaky === 0) return null;
  return (
    <section>
      <h2>{t('Flaky')}</h2>
      <ol class="slowest flaky">
        {data.flaky.map((row) => (
          <li key={row.id}>
            <span class="time">{count(row.attempts, 'attempt')}</span>
            <span>
              <a href={testLink(row.id)}>
                <bdi>{row.name}</bdi>
              </a>
              {row.why && <span class="dim why">{row.why}</span>}
            </span>
          </li>
        ))}
      </ol>
      {data.allFlaky > data.flaky.length && <a href={testsLink({ flaky: 'flaky' })}>{t('and {0} more', whole(data.allFlaky - data.flaky.length))}</a>}
    </section>
  );
}

function Slowest({ data }: { data: RunData }) {
  return (
    <section>
      <h2>{t('Slowest')}</h2>
      <ol class="slowest">
        {data.slowest.map((row) => (
          <li key={row.id}>
            <span class="time">{durationText(row.duration)}</span>
            <a href={testLink(row.id)}>
              <bdi>{row.name}</bdi>
            </a>
          </li>
        ))}
      </ol>
    </section>
  );
}
function HowLong({ data }: { data: RunData }) {
  if (rowsLoaded.value !== 'here') return null;
  return (
    <section>
      <h2>{t('How long tests were')}</h2>
      <Durations rows={data.rows} />
    </section>
  );
}

function LastRuns({ data }: { data: RunData }) {
  if (!data.earlier || data.earlier.list.length === 0) return null;
  return (
    <section class="last-runs">
      <h2>
        <a href={earlierLink}>{t('The last runs')}</a>
      </h2>
      <RunsChart runs={[...data.earlier.list, ofThisRun(data)]}>{t('red did not pass')}</RunsChart>
    </section>
  );
}

function Facts({ data }: { data: RunData }) {
  return (
    <section>
      {data.facts && <h2>{t('Facts')}</h2>}
      <dl class="facts">
        {data.facts?.map(([name, value]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>
              {/^https?:\/\/\S+$/.test(value) ? (
                <a href={value} target="_blank" rel="noopener noreferrer">
                  {value}
                </a>
              ) : (
                value
              )}
            </dd>
          </div>
        ))}
      </dl>
      {data.overhead > 0 && <p class="dim">{t('Overhead of recording: {0} % of the time of the tests', decimal(100 * data.overhead, data.overhead < 0.01 ? 2 : 1))}</p>}
      <p>
        <a href={testLink('run')}>{t('What happened outside tests')}</a>
      </p>
    </section>
  );
}

function Problems({ data }: { data: RunData }) {
  if (data.problems.length === 0) return null;
  return (
    <details class="problems" open={data.problems.length < 6}>
      <summary>{t('{0} in recording or reading this run', count(data.problems.length, 'problem'))}</summary>
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
