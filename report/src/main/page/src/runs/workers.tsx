// A line a thread, its tests as bars in true time: who waited, who was last, what running side by side saved.
import { scaleLinear } from 'd3-scale';
import { useMemo, useRef, useState } from 'preact/hooks';
import { barsOf, lanesOf, type Bar, type Lane } from './lanes';
import { RowsToCome } from '../marks/rowsToCome';
import { needsAttention, outcomeText } from '../data/outcomes';
import { rowsLoaded } from '../data/loaded';
import { testLink, testsLink } from '../data/route';
import { count, durationText, offset } from '../words/text';
import type { RunData } from '../data/types';
import { t } from '../words/texts';

const WIDTH = 1000;
const LANE = 26;
/** How tall bars are: what somebody has to look at by its height too, for who sees no red. */
const BAR = 22;
const CALM_BAR = 10;
const MAX_LANES = 200;

export function Workers({ data }: { data: RunData }) {
  if (rowsLoaded.value !== 'here' && data.rows.length === 0) return <RowsToCome />;
  return <Lanes data={data} />;
}

function Lanes({ data }: { data: RunData }) {
  const lanes = useMemo(() => lanesOf(data.rows), [data.rows]);
  const whole: [number, number] = [0, Math.max(1, data.duration, ...lanes.map((lane) => lane.rows.at(-1)!.at + lane.rows.at(-1)!.duration))];
  const [range, setRange] = useState<[number, number]>(whole);
  const [under, setUnder] = useState<Bar>();
  const shown = lanes.slice(0, MAX_LANES);
  return (
    <main class="workers">
      <h1>{sentence(lanes, whole[1])}</h1>
      <p class="dim range">
        {t('{0} to {1}', offset(range[0]), offset(range[1]))}
        {(range[0] !== whole[0] || range[1] !== whole[1]) && (
          <button class="word" onClick={() => setRange(whole)}>
            {t('the whole run')}
          </button>
        )}
        <span class="zoom" role="group" aria-label={t('Zoom')}>
          <button class="word" aria-label={t('Earlier')} onClick={() => setRange(moved(range, whole, -0.5))}>‹</button>
          <button class="word" aria-label={t('Closer')} onClick={() => setRange(zoomed(range, whole, 0.5))}>+</button>
          <button class="word" aria-label={t('Further')} onClick={() => setRange(zoomed(range, whole, 2))}>−</button>
          <button class="word" aria-label={t('Later')} onClick={() => setRange(moved(range, whole, 0.5))}>›</button>
        </span>
      </p>
      <p class="dim under" role="status">
        {under ? described(under) : t('Tall bars did not pass. Drag over the lines to look closer.')}
      </p>
      <div class="lane-drawing">
        <ul class="lane-names" aria-hidden="true">
          {shown.map((lane) => (
            <li key={lane.worker + lane.thread} title={`${lane.worker}, ${lane.thread}`}>
              {lane.thread || lane.worker}
            </li>
          ))}
        </ul>
        <Drawn lanes={shown} range={range} onRange={setRange} onUnder={setUnder} />
        <Axis range={range} />
      </div>
      {lanes.length > MAX_LANES && <p class="dim">{t('and {0}', count(lanes.length - MAX_LANES, 'more thread'))}</p>}
      <LaneTable lanes={shown} whole={whole[1]} />
    </main>
  );
}

interface DrawnProps {
  lanes: Lane[];
  range: [number, number];
  onRange(range: [number, number]): void;
  onUnder(bar: Bar | undefined): void;
}

function Drawn({ lanes, range, onRange, onUnder }: DrawnProps) {
  const box = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<[number, number]>();
  const x = scaleLinear(range, [0, WIDTH]).clamp(true);
  const bars = useMemo(() => lanes.map((lane) => barsOf(lane.rows, range[0], range[1], (range[1] - range[0]) / WIDTH)), [lanes, range]);
  const height = lanes.length * LANE;
  const at = (event: MouseEvent) => {
    const area = box.current!.getBoundingClientRect();
    return x.invert(((event.clientX - area.left) / area.width) * WIDTH);
  };
  const barAt = (event: MouseEvent) => {
    const area = box.current!.getBoundingClientRect();
    const lane = bars[Math.floor(((event.clientY - area.top) / area.height) * lanes.length)] ?? [];
    const time = at(event);
    return lane.find((bar) => bar.from <= time && time <= bar.to);
  };
  const release = (event: MouseEvent) => {
    if (!drag) return;
    const [from, to] = [Math.min(...drag), Math.max(...drag)];
    setDrag(undefined);
    if (to - from > (range[1] - range[0]) / 100) return onRange([from, to]);
    const bar = barAt(event);
    if (bar) location.hash = testLink(bar.rows[0]!.id);
  };
  return (
    <svg
      ref={box}
      class="lanes"
      viewBox={`0 0 ${WIDTH} ${height}`}
      preserveAspectRatio="none"
      style={{ height: `${height}px` }}
      role="img"
      aria-label={t('{0} in time; the table below has the same in numbers', count(lanes.length, 'thread'))}
      onMouseDown={(event) => setDrag([at(event), at(event)])}
      onMouseMove={(event) => {
        if (drag) setDrag([drag[0], at(event)]);
        else onUnder(barAt(event));
      }}
      onMouseUp={release}
      onMouseLeave={() => {
        setDrag(undefined);
        onUnder(undefined);
      }}
    >
      {x.ticks(TICKS).map((tick) => (
        <line key={tick} class="grid" x1={x(tick)} x2={x(tick)} y1="0" y2={height} />
      ))}
      {bars.map((lane, index) => (
        <g key={index} transform={`translate(0 ${index * LANE + (LANE - BAR) / 2})`}>
          {paths(lane, x).map(([outcome, path]) => (
            <path key={outcome} class={`tick ${outcome}`} d={path} />
          ))}
        </g>
      ))}
      {drag && <rect class="dragged" x={x(Math.min(...drag))} width={Math.abs(x(drag[1]) - x(drag[0]))} y="0" height={height} />}
    </svg>
  );
}

const TICKS = 8;

function Axis({ range }: { range: [number, number] }) {
  const x = scaleLinear(range, [0, 100]);
  return (
    <div class="axis" aria-hidden="true">
      {x.ticks(TICKS).map((tick) => (
        // The first begins where the drawing begins, the last ends where it ends: none hangs over.
        <span key={tick} style={{ left: `${x(tick)}%`, transform: `translateX(-${x(tick)}%)` }}>
          {offset(tick).replace(/\.000$/, '')}
        </span>
      ))}
    </div>
  );
}

/** A path for each outcome: elements are what a browser is slow with. */
function paths(bars: Bar[], x: (at: number) => number): [string, string][] {
  const paths = new Map<string, string>();
  for (const { from, to, outcome } of bars) {
    const left = x(from);
    const width = Math.max(0.6, x(to) - left - 0.3);
    const height = needsAttention(outcome) ? BAR : CALM_BAR;
    paths.set(outcome, `${paths.get(outcome) ?? ''}M${left.toFixed(2)} ${(BAR - height) / 2}h${width.toFixed(2)}v${height}h-${width.toFixed(2)}z`);
  }
  return [...paths];
}

function LaneTable({ lanes, whole }: { lanes: Lane[]; whole: number }) {
  return (
    <table class="groups">
      <thead>
        <tr>
          <th scope="col">{t('worker, thread')}</th>
          <th scope="col" class="number">{t('tests')}</th>
          <th scope="col" class="number">{t('busy')}</th>
          <th scope="col" class="number">{t('of the run')}</th>
          <th scope="col" class="number">{t('longest pause')}</th>
        </tr>
      </thead>
      <tbody>
        {lanes.map((lane) => (
          <tr key={lane.worker + lane.thread}>
            <th scope="row">
              <a href={testsLink({ group: 'worker', find: lane.thread || lane.worker })}>{lane.thread ? `${lane.worker}, ${lane.thread}` : lane.worker}</a>
            </th>
            <td class="number">{count(lane.rows.length, 'start')}</td>
            <td class="number">{durationText(lane.busy)}</td>
            <td class="number">{Math.round((100 * lane.busy) / whole)} %</td>
            <td class="number dim">{lane.gap > 0 ? t('{0} at {1}', durationText(lane.gap), offset(lane.gapAt)) : t('none')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The longest chain is what the run would take at the least, however many threads it had. */
function sentence(lanes: Lane[], whole: number): string {
  const busy = lanes.reduce((sum, lane) => sum + lane.busy, 0);
  const longest = Math.max(...lanes.map((lane) => lane.busy), 0);
  const work = t('{0} of {1} ran for {2} in {3}.', count(lanes.length, 'thread'), count(new Set(lanes.map((lane) => lane.worker)).size, 'worker'), durationText(busy), durationText(whole));
  if (lanes.length < 2) return work;
  const saved = busy - whole;
  return `${work} ${saved > 0 ? t('Side by side they saved {0}; the busiest was at work for {1}.', durationText(saved), durationText(longest)) : t('The busiest was at work for {0}.', durationText(longest))}`;
}

function described(bar: Bar): string {
  const first = bar.rows[0]!;
  if (bar.rows.length === 1) return `${offset(first.at)} ${t('{0}, {1} after {2}', first.name, outcomeText(first.outcome), durationText(first.duration))}`;
  return `${offset(first.at)} ${t('{0}, from {1}; look closer to see each', count(bar.rows.length, 'test'), first.name)}`;
}

function zoomed([from, to]: [number, number], whole: [number, number], by: number): [number, number] {
  const middle = (from + to) / 2;
  const half = ((to - from) * by) / 2;
  return within([middle - half, middle + half], whole);
}

function moved([from, to]: [number, number], whole: [number, number], by: number): [number, number] {
  return within([from + (to - from) * by, to + (to - from) * by], whole);
}

function within([from, to]: [number, number], [first, last]: [number, number]): [number, number] {
  const width = Math.min(to - from, last - first);
  const start = Math.min(Math.max(first, from), last - width);
  return [start, start + width];
}
