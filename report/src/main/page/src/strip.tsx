// The run drawn as a strip of ticks, one a test, in the order of time. Calm outcomes are low, the others rise above.
import { gravity, needsAttention, outcomeText, testLink, testsLink } from './store';
import { count, durationText } from './text';
import type { Outcome, Row } from './types';

const MAX_TICKS = 900;
const HEIGHT = 64;
const BASE = 52;

interface Tick {
  outcome: Outcome;
  title: string;
  href: string;
}

export function Strip({ rows, duration }: { rows: Row[]; duration: number }) {
  if (rows.length === 0) return null;
  const ticks = rows.length <= MAX_TICKS ? rows.map(tick) : bins(rows);
  const step = 1000 / ticks.length;
  const width = Math.max(0.6, Math.min(5, step * 0.45));
  return (
    <figure class="strip">
      <svg viewBox={`0 0 1000 ${HEIGHT}`} preserveAspectRatio="none" role="img" aria-label="All tests in the order of time">
        <line class="ground" x1="0" x2="1000" y1={BASE} y2={BASE} />
        {ticks.map((one, index) => {
          const x = (index + 0.5) * step;
          return (
            <a key={index} href={one.href}>
              <title>{one.title}</title>
              <rect class="catch" x={x - step / 2} y="0" width={step} height={HEIGHT} />
              <Line tick={one} x={x} width={width} />
            </a>
          );
        })}
      </svg>
      <figcaption class="dim">
        <span>start</span>
        <span>{count(rows.length, 'test')} in the order of their start; tall marks did not pass</span>
        <span>{durationText(duration)}</span>
      </figcaption>
    </figure>
  );
}

function Line({ tick: { outcome }, x, width }: { tick: Tick; x: number; width: number }) {
  if (outcome === 'passed') return <rect class="tick passed" x={x - width / 2} y={BASE - 16} width={width} height="16" />;
  if (!needsAttention(outcome))
    return <rect class={`tick ${outcome}`} x={x - width / 2} y={BASE - 5} width={width} height="5" />;
  const wide = Math.min(9, width * 1.8);
  return (
    <g class={`tick ${outcome}`}>
      <rect x={x - wide / 2} y="6" width={wide} height={BASE - 6} />
      {outcome === 'errored' && <rect class="gap" x={x - wide / 2} y="36" width={wide} height="4" />}
      {outcome === 'unfinished' && <rect class="gap" x={x - wide / 2} y="18" width={wide} height="18" />}
      <rect x={x - wide / 2} y={BASE + 3} width={wide} height="5" />
    </g>
  );
}

function tick(row: Row): Tick {
  const message = row.message ? `: ${row.message}` : '';
  return { outcome: row.outcome, title: `${row.name}, ${outcomeText(row.outcome)}${message}`, href: testLink(row.id) };
}

/** More tests than can be told apart: each tick is several tests in a row, drawn as the gravest of them. */
function bins(rows: Row[]): Tick[] {
  const size = Math.ceil(rows.length / MAX_TICKS);
  const ticks: Tick[] = [];
  for (let from = 0; from < rows.length; from += size) {
    const some = rows.slice(from, from + size);
    const worst = some.reduce((a, b) => (gravity(b.outcome) > gravity(a.outcome) ? b : a));
    const failing = some.filter((row) => needsAttention(row.outcome)).length;
    ticks.push({
      outcome: worst.outcome,
      title: `${some.length} tests from ${some[0]!.name}; ${failing} did not pass`,
      href: failing > 0 ? testLink(worst.id) : testsLink({}),
    });
  }
  return ticks;
}
