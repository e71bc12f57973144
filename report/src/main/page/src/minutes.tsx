// One test: why it failed, what it worked with, and what happened in it, with the papers beside the moment.
import { useEffect, useMemo } from 'preact/hooks';
import { Open } from './comparing';
import { Entries } from './entries';
import { FailureBox } from './failure';
import { filmOf } from './film';
import { Heard } from './heard';
import { onKey } from './ledger';
import { Mark } from './mark';
import { DataRows } from './rows';
import { keyOf, minutesFiles, minutesLink, needsAttention, route } from './store';
import { duration, moment } from './text';
import type { About, Data, Entry, Minutes, Paper, Row, RunData } from './types';

export function MinutesView({ data }: { data: RunData }) {
  const { address } = route.value;
  if (address === 'run') return <RunMinutes data={data} />;
  const place = data.rows.findIndex((row) => row.address === address);
  const row = data.rows[place];
  if (!row)
    return (
      <main class="lost">
        <h1>No such test in this run</h1>
        <p class="code">{address}</p>
      </main>
    );
  return <RowMinutes key={address} data={data} row={row} place={place} />;
}

function RowMinutes({ data, row, place }: { data: RunData; row: Row; place: number }) {
  const file = minutesFiles.get(String(Math.floor(place / data.chunk))).value;
  const minutes = file.state === 'here' ? file.value[place % data.chunk] : undefined;
  const began = data.workers.find((worker) => worker.name === row.worker)?.began ?? 0;
  const named = minutes?.entries.filter((entry): entry is Data => entry.is === 'data') ?? [];
  return (
    <main class="minutes">
      <Turning data={data} place={place} />
      <p class="path dim">{row.path.join(' › ')}</p>
      <h1>
        <Mark outcome={row.outcome} /> {row.name}
      </h1>
      <p class="about dim">
        <b class={row.outcome}>{row.outcome}</b> after {duration(row.took)}, started {moment(data.started, row.at)}
        {row.thread && ` on ${row.thread}`} in {row.worker}
        {row.tags?.map((tag) => (
          <span key={tag} class="tag">
            {tag}
          </span>
        ))}
      </p>
      {row.about && <AboutTest about={row.about} />}
      {(row.superseded || row.attempts) && <Attempts data={data} row={row} />}
      {row.said && (!needsAttention(row.outcome) || row.outcome === 'unfinished') && <p class="reason">{row.said}</p>}
      {named.length > 0 && (
        <dl class="data">
          {named.map((one, index) => (
            <div key={index}>
              <dt>{one.name}</dt>
              <dd>{one.value}</dd>
            </div>
          ))}
        </dl>
      )}
      <DataRows data={data} row={row} />
      {minutes?.failure && <FailureBox failure={minutes.failure} papers={papersIn(minutes.entries)} />}
      {file.state === 'lost' && <Lost />}
      <Open.Provider value={{ data, place }}>
        {minutes && <Account minutes={minutes} start={row.at} began={began} />}
      </Open.Provider>
      <p class="address dim code">{row.address}</p>
    </main>
  );
}

function AboutTest({ about }: { about: About }) {
  return (
    <dl class="data about-test">
      {about.text && (
        <div>
          <dt>about</dt>
          <dd>{about.text}</dd>
        </div>
      )}
      {about.severity && (
        <div>
          <dt>severity</dt>
          <dd>{about.severity}</dd>
        </div>
      )}
      {about.owner && (
        <div>
          <dt>owner</dt>
          <dd>{about.owner}</dd>
        </div>
      )}
      {about.links.length > 0 && (
        <div>
          <dt>links</dt>
          <dd>
            {about.links.map(({ name, address }) =>
              address ? (
                <a key={name} href={address} target="_blank" rel="noopener noreferrer">
                  {name}
                </a>
              ) : (
                <span key={name}>{name}</span>
              ),
            )}
          </dd>
        </div>
      )}
    </dl>
  );
}

/** Of a test that was run several times in this run: each attempt is one step away, and the last one counts. */
function Attempts({ data, row }: { data: RunData; row: Row }) {
  const all = data.rows.filter((other) => keyOf(other) === keyOf(row));
  return (
    <p class="reason">
      {row.recovered && 'Flaky. '}
      {all.map((other, index) => (
        <span key={other.address}>
          {index > 0 && ', '}
          {other === row ? (
            <b>
              attempt {index + 1} of {all.length}: {other.outcome}
            </b>
          ) : (
            <a href={minutesLink(other.address)}>
              attempt {index + 1}: {other.outcome}
            </a>
          )}
        </span>
      ))}
    </p>
  );
}

function papersIn(entries: Entry[]): Paper[] {
  return entries.flatMap((entry) => {
    if (entry.is === 'step') return papersIn(entry.entries);
    return entry.is === 'paper' ? [entry] : [];
  });
}

function RunMinutes({ data }: { data: RunData }) {
  const file = minutesFiles.get('run').value;
  return (
    <main class="minutes">
      <p class="path dim">{data.name}</p>
      <h1>Outside tests</h1>
      <p class="about dim">Set-up and tear-down of classes, and lines from threads that belonged to no test.</p>
      {file.state === 'lost' && <Lost />}
      {file.state === 'here' && <Account minutes={file.value[0]!} start={0} began={0} />}
    </main>
  );
}

function Account({ minutes, start, began }: { minutes: Minutes; start: number; began: number }) {
  const shown = minutes.entries.filter((entry: Entry) => entry.is !== 'data');
  const film = useMemo(() => filmOf(minutes.entries), [minutes]);
  if (shown.length === 0) return <p class="dim empty">Nothing was recorded in between.</p>;
  return (
    <>
      <Entries entries={shown} start={start} failure={minutes.failure} film={film} />
      <Heard papers={papersIn(minutes.entries)} began={began} start={start} filmed={film !== undefined} />
    </>
  );
}

function Lost() {
  return (
    <p class="reason">
      The file that holds these minutes is missing beside the page. Copy or unpack its folder as a whole, or write it again.
    </p>
  );
}

/** To the neighbours in the order of time. */
function Turning({ data, place }: { data: RunData; place: number }) {
  const before = data.rows[place - 1];
  const after = data.rows[place + 1];
  const grave = data.rows.find((row, at) => at > place && needsAttention(row.outcome))
    ?? data.rows.find((row, at) => at !== place && needsAttention(row.outcome));
  const go = (row: Row | undefined) => () => row && (location.hash = minutesLink(row.address));
  useEffect(() => {
    const stops = [onKey('p', go(before)), onKey('n', go(after)), onKey('f', go(grave))];
    return () => stops.forEach((stop) => stop());
  }, [place]);
  return (
    <nav class="turning" aria-label="Tests">
      <Turn to={before} label="‹ Previous" hint="p" />
      <Turn to={after} label="Next ›" hint="n" />
      <Turn to={grave} label="Next to look at »" hint="f" />
    </nav>
  );
}

function Turn({ to, label, hint }: { to: Row | undefined; label: string; hint: string }) {
  if (!to) return <span class="dim">{label}</span>;
  return (
    <a href={minutesLink(to.address)} title={`${to.name} (key ${hint})`}>
      {label}
    </a>
  );
}
