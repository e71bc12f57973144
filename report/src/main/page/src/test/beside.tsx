// A test beside itself: another attempt, or the same test in another run. The first step that went differently, the steps of both in
// one table, and the last screenshots over each other.
import { diffArrays } from 'diff';
import { useMemo, useState } from 'preact/hooks';
import { Mark } from '../marks/mark';
import { address } from '../data/packed';
import { attachmentsIn } from '../data/inside';
import { baselineFiles, ofRow, testFiles } from '../data/loaded';
import { keyOf } from '../data/rows';
import { outcomeText } from '../data/outcomes';
import { route, testLink } from '../data/route';
import { count, durationText } from '../words/text';
import type { Attachment, Entry, Outcome, Row, RunData, Step, TestData } from '../data/types';
import { t } from '../words/texts';

const MAX_STEPS = 2_000;
const BASELINE = 'baseline';

interface Side {
  label: string;
  outcome: Outcome;
  duration: number;
  test: TestData;
}

/** What it can be compared with, and where one is chosen, the comparison. */
export function Beside({ data, row, position, test }: { data: RunData; row: Row; position: number; test: TestData }) {
  const attempts = row.superseded || row.attempts ? data.rows.filter((other) => keyOf(other) === keyOf(row)) : [];
  const found = data.baseline === undefined ? undefined : ofRow(baselineFiles, data, position);
  const before = found?.leftOut ? undefined : found; // nothing of it is here, which would look like a difference
  if (attempts.length < 2 && !before) return null;
  const chosen = route.value.params.get('beside') ?? '';
  const here: Side = { label: attempts.length > 1 ? t('attempt {0}', attempts.indexOf(row) + 1) : t('this run'), outcome: row.outcome, duration: row.duration, test };
  return (
    <section class="beside" aria-label={t('Compared with')}>
      <p>
        <label class="choice">
          {t('Compare with')}{' '}
          <select value={chosen} onChange={(event) => go(row, event.currentTarget.value)}>
            <option value="">{t('nothing')}</option>
            {attempts.map((other, index) => other !== row && (
              <option key={other.id} value={other.id}>
                {t('attempt {0}', index + 1)}, {outcomeText(other.outcome)}
              </option>
            ))}
            {before && <option value={BASELINE}>{data.baseline}</option>}
          </select>
        </label>
      </p>
      {chosen === BASELINE && before && (
        <Both here={here} there={{ label: data.baseline!, outcome: before.outcome ?? 'unfinished', duration: before.duration ?? 0, test: before }} />
      )}
      {attempts.map((other, index) => other.id === chosen && other !== row && <Attempt key={other.id} data={data} row={other} label={t('attempt {0}', index + 1)} here={here} />)}
    </section>
  );
}

function go(row: Row, beside: string): void {
  history.replaceState(null, '', testLink(row.id) + (beside ? `?beside=${encodeURIComponent(beside)}` : ''));
  dispatchEvent(new HashChangeEvent('hashchange'));
}

function Attempt({ data, row, label, here }: { data: RunData; row: Row; label: string; here: Side }) {
  const test = ofRow(testFiles, data, data.rows.indexOf(row));
  if (!test) return <p class="dim">…</p>;
  return <Both here={here} there={{ label, outcome: row.outcome, duration: row.duration, test }} />;
}

interface Pair {
  here?: Line;
  there?: Line;
}

interface Line {
  depth: number;
  step: Step;
}

function Both({ here, there }: { here: Side; there: Side }) {
  const pairs = useMemo(() => paired(steps(here.test.entries), steps(there.test.entries)), [here.test, there.test]);
  const first = pairs.findIndex(isDifferent);
  return (
    <>
      <p class="first-difference">{sentence(pairs, first, here, there)}</p>
      <Screens here={last(here.test.entries)} there={last(there.test.entries)} labels={[here.label, there.label]} />
      {pairs.length > 0 && (
        <table class="differences steps">
          <thead>
            <tr>
              <th scope="col">{t('step')}</th>
              <th scope="col">{here.label}</th>
              <th scope="col">{there.label}</th>
            </tr>
          </thead>
          <tbody>
            {pairs.map((pair, index) => {
              const line = (pair.here ?? pair.there)!;
              return (
                <tr key={index} class={isDifferent(pair) ? 'different' : ''} aria-current={index === first ? 'step' : undefined}>
                  <th scope="row" style={{ paddingLeft: `${Math.min(line.depth, 6)}rem` }}>
                    {nameOf(line.step)}
                  </th>
                  <Cell line={pair.here} name={here.label} />
                  <Cell line={pair.there} name={there.label} />
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </>
  );
}

function Cell({ line, name }: { line: Line | undefined; name: string }) {
  return (
    <td data-name={name}>
      {line ? (
        <>
          <Mark outcome={line.step.outcome} /> {outcomeText(line.step.outcome)} <span class="dim">{durationText(line.step.duration)}</span>
        </>
      ) : (
        <i class="dim">{t('not there')}</i>
      )}
    </td>
  );
}

function sentence(pairs: Pair[], first: number, here: Side, there: Side): string {
  const end = (side: Side) => t('{0} {1} after {2}', side.label, outcomeText(side.outcome), durationText(side.duration));
  const ends = `${end(here)}, ${end(there)}`;
  if (pairs.length === 0) return `${t('Neither has a step')}; ${ends}.`;
  if (first < 0) return `${t('{0} went the same', count(pairs.length, 'step'))}; ${ends}.`;
  const { here: a, there: b } = pairs[first]!;
  const name = nameOf((a ?? b)!.step);
  if (!b) return `${t('The first step that went differently: “{0}” is only in {1}', name, here.label)}; ${ends}.`;
  if (!a) return `${t('The first step that went differently: “{0}” is only in {1}', name, there.label)}; ${ends}.`;
  return `${t('The first step that went differently: “{0}” {1} in {2}, {3} in {4}', name, outcomeText(a.step.outcome), here.label, outcomeText(b.step.outcome), there.label)}; ${ends}.`;
}

function isDifferent({ here, there }: Pair): boolean {
  return !here || !there || here.step.outcome !== there.step.outcome;
}

/** Step by step in order; what one of them has and the other has not stands alone. */
function paired(here: Line[], there: Line[]): Pair[] {
  const pairs: Pair[] = [];
  let a = 0;
  let b = 0;
  for (const part of diffArrays(there.map(identity), here.map(identity)))
    for (let i = 0; i < part.value.length; i++) {
      if (part.added) pairs.push({ here: here[a++]! });
      else if (part.removed) pairs.push({ there: there[b++]! });
      else pairs.push({ here: here[a++]!, there: there[b++]! });
    }
  return pairs;
}

/** Its port is another one each time. */
const LOOPBACK = /\b(127\.0\.0\.1|localhost|\[::1\]):\d+/g;

function identity({ depth, step }: Line): string {
  return `${depth} ${step.kind ?? ''} ${step.name.replace(LOOPBACK, '$1')}`;
}

function nameOf(step: Step): string {
  return step.kind === 'browser' ? step.name.replace(/\*/g, '') : step.name;
}

function steps(entries: Entry[], depth = 0, found: Line[] = []): Line[] {
  for (const entry of entries) {
    if (found.length >= MAX_STEPS) break;
    if (entry.type !== 'step') continue;
    found.push({ depth, step: entry });
    steps(entry.entries, depth + 1, found);
  }
  return found;
}

function last(entries: Entry[]): Attachment | undefined {
  return attachmentsIn(entries).findLast((one) => one.kind === 'screenshot' && one.href !== undefined);
}

/** Over each other, with a line between them that can be moved. */
function Screens({ here, there, labels }: { here: Attachment | undefined; there: Attachment | undefined; labels: [string, string] }) {
  const [share, setShare] = useState(50);
  const [isDifference, setDifference] = useState(false);
  const before = there?.href && address(there.href);
  const now = here?.href && address(here.href);
  if (!before || !now) return null;
  return (
    <figure class="screens">
      <div class={`layers ${isDifference ? 'subtracted' : ''}`}>
        <img src={now} alt={t('The page at last in {0}', labels[0])} />
        <img src={before} alt={t('The page at last in {0}', labels[1])} style={isDifference ? {} : { clipPath: `inset(0 0 0 ${share}%)` }} />
        {!isDifference && <i style={{ left: `${share}%` }} aria-hidden="true" />}
      </div>
      <input type="range" min={0} max={100} value={share} disabled={isDifference} aria-label={t('How much of {0} is seen, from the left', labels[0])} onInput={(event) => setShare(event.currentTarget.valueAsNumber)} />
      <figcaption class="dim">
        <span>{labels[0]}</span>
        <button class="quiet" aria-pressed={isDifference} onClick={() => setDifference(!isDifference)}>
          {t('only what differs')}
        </button>
        <span>{labels[1]}</span>
      </figcaption>
    </figure>
  );
}
