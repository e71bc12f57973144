// One test: why it failed, what it worked with, and what happened in it, with the attachments beside the moment.
import { useMemo } from 'preact/hooks';
import { Open } from '../exchanges/comparison';
import { Entries } from './entries';
import { Beside } from './beside';
import { BriefPart } from './brief';
import { FailureBox } from './failure';
import { recordingOf } from './playback';
import { ConsoleAndNetwork } from './consoleAndNetwork';
import { Mark } from '../marks/mark';
import { Marks } from '../marks/marks';
import { TestNavigation } from './navigation';
import { DataRows } from './dataRows';
import { RowsToCome } from '../marks/rowsToCome';
import { groupsOf } from '../tests/groups';
import { ReasonThere, RuleLine } from '../tests/rule';
import { attachmentsIn } from '../data/inside';
import { isWhole } from '../data/types';
import { keyOf } from '../data/rows';
import { needsAttention, outcomeText } from '../data/outcomes';
import { route, testLink, testsLink } from '../data/route';
import { rowsLoaded, testFiles } from '../data/loaded';
import { count, durationText, moment } from '../words/text';
import { sinceBaseline } from '../words/baseline';
import type { About, Data, Entry, Row, RunData, TestData } from '../data/types';
import { t } from '../words/texts';

export function TestView({ data }: { data: RunData }) {
  const { id } = route.value;
  if (id === 'run') return <OutsideTests />;
  const position = data.rows.findIndex((row) => row.id === id);
  const row = data.rows[position];
  if (!row && rowsLoaded.value !== 'here') return <RowsToCome />;
  if (!row)
    return (
      <main class="lost">
        <h1>{t('No such test in this run')}</h1>
        <p class="code">{id}</p>
      </main>
    );
  return <OneTest key={id} data={data} row={row} position={position} />;
}

function OneTest({ data, row, position }: { data: RunData; row: Row; position: number }) {
  const file = testFiles.get(String(Math.floor(position / data.chunk))).value;
  const held = file.state === 'here' ? file.value[position % data.chunk] : undefined;
  const test = held?.id === undefined || held.id === row.id ? held : undefined; // of a newer page, whose rows are on their way
  const began = data.workers.find((worker) => worker.name === row.worker)?.began ?? 0;
  const counted = row.superseded ? (data.rows.find((one) => !one.superseded && keyOf(one) === keyOf(row)) ?? row) : row;
  const named = test?.entries.filter((entry): entry is Data => entry.type === 'data') ?? [];
  return (
    <main class="test">
      <TestNavigation data={data} position={position} />
      <Breadcrumb data={data} row={row} />
      <h1>
        <Mark outcome={row.outcome} /> <bdi>{row.name}</bdi>
      </h1>
      <p class="about dim">
        <b class={row.outcome}>{outcomeText(row.outcome)}</b> {t('after {0}, started {1}', durationText(row.duration), moment(data.started, row.at))}
        {row.thread && ' ' + t('on {0}', row.thread)} {t('in {0}', row.worker)}
        {row.source && (
          <>
            {t(', written in')} <span class="code">{row.source}</span>
          </>
        )}
        {row.tags?.map((tag) => (
          <span key={tag} class="tag">
            {tag}
          </span>
        ))}
      </p>
      {counted.before && data.earlier && <Before data={data} row={counted} before={counted.before} />}
      {row.rule !== undefined && data.rules && <RuleLine rule={data.rules[row.rule]!} />}
      {row.about && <AboutTest about={row.about} />}
      {(row.superseded || row.attempts) && <Attempts data={data} row={row} />}
      {row.why && (
        <p class="reason why">
          {t('The attempt before did not pass:')} {row.attemptBefore ? <a href={testLink(row.attemptBefore)}>{row.why}</a> : row.why}
        </p>
      )}
      {(row.difference ?? counted.difference) && (
        <p class="first-different">
          <b>{t('First different:')}</b> <span class="code">{row.difference ?? counted.difference}</span>
        </p>
      )}
      {row.message && (!needsAttention(row.outcome) || row.outcome === 'unfinished') && (
        <p class="reason">
          {row.message}
          {row.blockedBy && <BlockedBy data={data} ids={row.blockedBy} />}
        </p>
      )}
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
      {test?.failure && (
        <FailureBox failure={test.failure} attachments={attachmentsIn(test.entries)}>
          <ReasonOf data={data} row={row} />
          {row.brief && <BriefPart position={position} id={row.id} />}
        </FailureBox>
      )}
      {file.state === 'lost' && <Lost />}
      {test && <Beside data={data} row={row} position={position} test={test} />}
      <Open.Provider value={{ data, position }}>
        {test && <TestEntries test={test} start={row.at} began={began} />}
      </Open.Provider>
      <p class="id dim code">{row.id}</p>
      {data.projectPages !== undefined && (
        <p class="there">
          <a href={`${data.projectPages}tests?key=${encodeURIComponent(keyOf(row))}`}>{t('All its runs')}</a>
        </p>
      )}
    </main>
  );
}

/** Beside the failure what explains it: the error in a response, of a script, or of a log; and that others have it too. */
function ReasonOf({ data, row }: { data: RunData; row: Row }) {
  const reason = row.reason === undefined ? undefined : data.reasons[row.reason];
  if (!isWhole(reason)) return null;
  const others = reason.tests - 1;
  if (others === 0 && reason.evidence === undefined) return <ReasonThere data={data} id={reason.id} />;
  return (
    <div class="reason-of">
      <h2>
        {t('Reason')}
        {others > 0 && (
          <>
            {t(', which')} <a href={testsLink({ reason: reason.id })}>{count(others, 'other test has')}</a> {t('too')}
          </>
        )}
      </h2>
      <p>{reason.title}</p>
      {reason.evidence && <p class="code evidence">{reason.evidence}</p>}
      <ReasonThere data={data} id={reason.id} />
    </div>
  );
}

/** What became of it in the runs before, the last one at the end. */
function Before({ data, row, before }: { data: RunData; row: Row; before: string }) {
  const letters = [...before];
  const failed = letters.filter((letter) => letter === 'F').length;
  const flaky = letters.filter((letter) => letter === '~').length;
  const sentence =
    flaky === 0 ? t('{0} of the last {1} runs failed', failed, letters.length) : t('{0} of the last {1} runs failed, in {2} it passed on a later attempt only', failed, letters.length, flaky);
  return (
    <p class="before dim">
      <Marks letters={before} />{' '}
      {row.fresh && data.news ? t('new {0}; {1}', sinceBaseline(data.news), sentence) : sentence}
      {row.anyway !== undefined && `; ${t('it is flaky and fails {0} % of the time anyway', row.anyway)}`}
    </p>
  );
}

/** Where the test is: all tests, its classes. Each leads to the list of what lies in it: the innermost class, or all that has the name. */
function Breadcrumb({ data, row }: { data: RunData; row: Row }) {
  const innermost = row.path.length - 1;
  return (
    <p class="path dim">
      <a href={testsLink({})}>{t('Tests')}</a>
      {row.path.map((name, index) => (
        <span key={index}>
          {' › '}
          <a href={testsLink(index === innermost ? { class: groupsOf(row, data, 'class')[0]! } : { find: name })}>
            <bdi>{name}</bdi>
          </a>
        </span>
      ))}
    </p>
  );
}

/** What kept the test from running is one step away. */
function BlockedBy({ data, ids }: { data: RunData; ids: string[] }) {
  const rows = data.rows.filter((row) => ids.includes(row.id));
  return (
    <span class="blocked-by">
      {rows.map((row) => (
        <span key={row.id}>
          <Mark outcome={row.outcome} /> <a href={testLink(row.id)}>{row.name}</a>
        </span>
      ))}
    </span>
  );
}

function AboutTest({ about }: { about: About }) {
  return (
    <dl class="data about-test">
      {about.text && (
        <div>
          <dt>{t('about')}</dt>
          <dd>{about.text}</dd>
        </div>
      )}
      {about.severity && (
        <div>
          <dt>{t('severity')}</dt>
          <dd>{about.severity}</dd>
        </div>
      )}
      {about.owner && (
        <div>
          <dt>{t('owner')}</dt>
          <dd>{about.owner}</dd>
        </div>
      )}
      {about.links.length > 0 && (
        <div>
          <dt>{t('links')}</dt>
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
      {row.recovered ? t('Flaky: passed on attempt {0}.', all.indexOf(row) + 1) : t('{0} attempts.', all.length)}{' '}
      {all.map((other, index) => (
        <span key={other.id}>
          {index === 0 ? t('Attempt') + ' ' : ', '}
          {other === row ? (
            <b>
              {index + 1} {outcomeText(other.outcome)}
            </b>
          ) : (
            <a href={testLink(other.id)}>
              {index + 1} {outcomeText(other.outcome)}
            </a>
          )}
        </span>
      ))}
    </p>
  );
}

function OutsideTests() {
  const file = testFiles.get('run').value;
  return (
    <main class="test">
      <p class="path dim">
        <a href={testsLink({})}>{t('Tests')}</a>
      </p>
      <h1>{t('Outside tests')}</h1>
      <p class="about dim">{t('Set-up and tear-down of classes, and lines from threads that belonged to no test.')}</p>
      {file.state === 'lost' && <Lost />}
      {file.state === 'here' && <TestEntries test={file.value[0]!} start={0} began={0} />}
    </main>
  );
}

function TestEntries({ test, start, began }: { test: TestData; start: number; began: number }) {
  const shown = test.entries.filter((entry: Entry) => entry.type !== 'data');
  const recording = useMemo(() => recordingOf(test.entries), [test]);
  if (test.leftOut) return <p class="dim empty">{t('What happened in tests that passed was left out of this page; the run has it.')}</p>;
  if (shown.length === 0) return <p class="dim empty">{t('Nothing was recorded in between.')}</p>;
  return (
    <>
      <Entries entries={shown} start={start} failure={test.failure} recording={recording} />
      <ConsoleAndNetwork attachments={attachmentsIn(test.entries)} began={began} start={start} recorded={recording !== undefined} />
    </>
  );
}

function Lost() {
  return (
    <p class="reason">{t('The file that holds this test is missing beside the page. Copy or unpack its folder as a whole, or write it again.')}</p>
  );
}
