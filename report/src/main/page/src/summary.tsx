// The first view: what the run came to, in a sentence; all tests as a strip; why tests failed.
import { Mark } from './mark';
import { ledgerLink, minutesLink } from './store';
import { Strip } from './strip';
import { count, duration, moment, whole } from './text';
import { OUTCOMES, type RunData } from './types';

const SLOWEST = 5;

export function Summary({ data }: { data: RunData }) {
  const tests = data.rows.filter((row) => !row.container && !row.superseded);
  return (
    <main class="summary">
      <p class="dateline">
        {moment(data.started, 0)}, {duration(data.took)}
        {data.workers.length > 1 && `, on ${data.workers.length} workers`}
      </p>
      <h1 class="sentence">{data.sentence}</h1>
      {data.incomplete && <p class="incomplete">{data.incomplete}</p>}
      <Strip rows={tests} took={data.took} />
      <ul class="counts">
        {OUTCOMES.toReversed()
          .filter((outcome) => data.counts[outcome])
          .map((outcome) => (
            <li key={outcome}>
              <a href={ledgerLink({ outcome })}>
                <Mark outcome={outcome} /> <b>{whole(data.counts[outcome]!)}</b> {outcome}
              </a>
            </li>
          ))}
      </ul>
      <div class="columns">
        <Causes data={data} />
        <aside>
          <Slowest data={data} />
          <Facts data={data} />
        </aside>
      </div>
      <Problems data={data} />
    </main>
  );
}

function Causes({ data }: { data: RunData }) {
  return (
    <section class="causes">
      <h2>Causes</h2>
      {data.causes.length === 0 && <p class="dim">Nothing failed.</p>}
      <ol>
        {data.causes.map((cause, index) => (
          <li key={index}>
            <h3>{cause.title}</h3>
            <p class="dim code">
              {shortType(cause.type)}
              {cause.place && <span> at {shortPlace(cause.place)}</span>}
            </p>
            <ul class="cause-tests">
              {cause.tests.slice(0, 8).map((test) => {
                const row = data.rows[test]!;
                return (
                  <li key={test}>
                    <Mark outcome={row.outcome} />{' '}
                    <span class="dim">{row.path.length > 0 && `${row.path[0]} › `}</span>
                    <a href={minutesLink(row.address)}>{row.name}</a>
                  </li>
                );
              })}
            </ul>
            {cause.tests.length > 8 && (
              <a href={ledgerLink({ group: 'cause' })}>and {count(cause.tests.length - 8, 'more test')}</a>
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
    .toSorted((a, b) => b.took - a.took)
    .slice(0, SLOWEST);
  return (
    <section>
      <h2>Slowest</h2>
      <ol class="slowest">
        {slowest.map((row) => (
          <li key={row.address}>
            <span class="time">{duration(row.took)}</span>
            <a href={minutesLink(row.address)}>{row.name}</a>
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
      {data.cost > 0 && <p class="dim">Recording took {(100 * data.cost).toFixed(data.cost < 0.01 ? 2 : 1)} % of the tests' time.</p>}
      <p>
        <a href={minutesLink('run')}>What happened outside tests</a>
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
function shortPlace(place: string): string {
  return place.match(/\(([^)]*)\)$/)?.[1] ?? place;
}
