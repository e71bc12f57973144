// Charts of the page: plain drawings on one scale, each said in words for who does not see it, with its numbers in a table.
import { scaleLinear, scaleLog } from 'd3-scale';
import { count, day, durationText, moment, whole } from '../words/text';
import type { EarlierRun, Row } from '../data/types';
import { t } from '../words/texts';

const WIDTH = 1000;
const HEIGHT = 100;
const GAP = 0.25;

/** A bar a run, as high as it has tests, those that did not pass at its top. The last one is this run. */
export function RunsChart({ runs, children }: { runs: EarlierRun[]; children?: string }) {
  const y = scaleLinear([0, Math.max(1, ...runs.map(([, , tests]) => tests))], [0, HEIGHT]);
  const step = WIDTH / runs.length;
  return (
    <figure>
      <svg class="chart" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none" role="img" aria-label={`${t('Tests of each run, those that did not pass at the top')}; ${spoken(runs)}`}>
        {runs.map(([name, started, tests, attention], index) => {
          const x = (index + GAP / 2) * step;
          const width = step * (1 - GAP);
          return (
            <g key={name}>
              <title>{`${moment(started, 0)}: ${t('{0} of {1} did not pass', whole(attention), count(tests, 'test'))}`}</title>
              <rect class="calm" x={x} width={width} y={HEIGHT - y(tests - attention)} height={y(tests - attention)} />
              <rect class="attention" x={x} width={width} y={HEIGHT - y(tests)} height={Math.max(attention > 0 ? 1.5 : 0, y(attention))} />
              {index === runs.length - 1 && <path class="now" d={`M${x} ${HEIGHT}h${width}`} />}
            </g>
          );
        })}
      </svg>
      <figcaption class="chart-caption dim">
        <span>{day(runs[0]![1])}</span>
        <span>{children ?? t('tests of each run; red ones did not pass')}</span>
        <span>{t('this run')}</span>
      </figcaption>
    </figure>
  );
}

function spoken(runs: EarlierRun[]): string {
  const [, , tests, attention] = runs.at(-1)!;
  return t('of this run {0} of {1}', whole(attention), whole(tests));
}

/** How long each run was, as a line from zero. */
export function TimesChart({ runs }: { runs: EarlierRun[] }) {
  const longest = Math.max(1, ...runs.map((run) => run[4]));
  const y = scaleLinear([0, longest], [HEIGHT - 4, 4]);
  const step = WIDTH / runs.length;
  const points = runs.map((run, index) => `${(index + 0.5) * step} ${y(run[4])}`);
  return (
    <figure>
      <svg class="chart low" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none" role="img" aria-label={t('How long each run was, up to {0}; this one {1}', durationText(longest), durationText(runs.at(-1)![4]))}>
        <path class="line" d={`M${points.join('L')}`} />
        <path class="line now" d={`M${points.at(-1)}h0.01`} />
      </svg>
      <figcaption class="chart-caption dim">
        <span>{t('0 to {0}', durationText(longest))}</span>
        <span>{t('how long each run was')}</span>
        <span>{durationText(runs.at(-1)![4])}</span>
      </figcaption>
    </figure>
  );
}

const BOUNDS = [1e3, 1e4, 1e5, 1e6, 1e7, 6e7, Infinity];
const NAMES = ['under 1 ms', 'to 10 ms', 'to 100 ms', 'to 1 s', 'to 10 s', 'to 1 min', 'longer'] as const;

/** How many tests were how long: a bar for each power of ten, with its number. */
export function Durations({ rows }: { rows: Row[] }) {
  const counts = BOUNDS.map(() => 0);
  for (const row of rows) if (!row.container && !row.superseded) counts[BOUNDS.findIndex((bound) => row.duration < bound)]!++;
  const largest = Math.max(...counts);
  if (largest === 0) return null;
  const first = counts.findIndex((number) => number > 0);
  const last = counts.findLastIndex((number) => number > 0);
  return (
    <table class="durations">
      <tbody>
        {counts.slice(first, last + 1).map((number, index) => (
          <tr key={index}>
            <th scope="row">{t(NAMES[first + index]!)}</th>
            <td class="of-bar">
              <svg viewBox="0 0 100 8" preserveAspectRatio="none" aria-hidden="true">
                <rect class="calm" width={(100 * number) / largest} height="8" />
              </svg>
            </td>
            <td class="number">{whole(number)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const NARROW = 120;
const LOW = 14;
const MAX_MARKS = 200;

/** The times of some exchanges on the scale of all: a thin mark each, so that where many were is dark. */
export function Times({ times, scale }: { times: number[]; scale: (micros: number) => number }) {
  if (times.length === 0) return null;
  const sorted = times.toSorted((a, b) => a - b);
  const shown = sorted.length <= MAX_MARKS ? sorted : Array.from({ length: MAX_MARKS }, (_, i) => sorted[Math.floor((i * sorted.length) / MAX_MARKS)]!);
  return (
    <svg class="times" width={NARROW} height={LOW} viewBox={`0 0 ${NARROW} ${LOW}`} role="img" aria-label={t('from {0} to {1}', durationText(sorted[0]!), durationText(sorted.at(-1)!))}>
      <path d={`M0 ${LOW - 0.5}H${NARROW}`} class="ground" />
      <path d={shown.map((time) => `M${scale(time).toFixed(1)} 1V${LOW - 1}`).join('')} />
    </svg>
  );
}

/** From the shortest to the longest of all, each ten times as long as wide as the other: endpoints are to be compared by the eye. */
export function timesScale(times: number[]): (micros: number) => number {
  const known = times.filter((time) => time > 0);
  const from = known.reduce((shortest, time) => Math.min(shortest, time), Infinity);
  const to = known.reduce((longest, time) => Math.max(longest, time), 0);
  if (known.length === 0 || from === to) return () => NARROW / 2;
  const scale = scaleLog([from, to], [2, NARROW - 2]);
  return (micros) => scale(Math.max(from, micros));
}
