// The run drawn as a strip in true time: what began in each slice of it, attempts too. Calm slices are low, those that somebody has
// to look at rise above. A few paths, and not an element a test: with 900 of those the first view took twice as long.
import { scaleLinear } from 'd3-scale';
import { useRef, useState } from 'preact/hooks';
import { needsAttention, outcomeText } from '../data/outcomes';
import { testLink, testsLink } from '../data/route';
import { count, durationText, offset } from '../words/text';
import type { RunData, TimeSlice } from '../data/types';
import { t } from '../words/texts';

const WIDTH = 1000;
const HEIGHT = 64;
const BASE = 52;
const CALM = 16;
const TICKS = 6;

export function Strip({ data }: { data: RunData }) {
  const { strip } = data;
  const box = useRef<SVGSVGElement>(null);
  const [under, setUnder] = useState<TimeSlice>();
  if (strip.filled.length === 0) return null;
  const step = WIDTH / strip.slices;
  const near = (event: MouseEvent) => {
    const area = box.current!.getBoundingClientRect();
    return nearest(strip.filled, ((event.clientX - area.left) / area.width) * strip.slices);
  };
  const time = scaleLinear([0, strip.width * strip.slices], [0, WIDTH]);
  return (
    <figure class="strip">
      <svg
        ref={box}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        role="img"
        aria-label={described(data)}
        onMouseMove={(event) => setUnder(near(event))}
        onMouseLeave={() => setUnder(undefined)}
        onClick={(event) => (location.hash = linkOf(near(event)))}
      >
        <line class="ground" x1="0" x2={WIDTH} y1={BASE} y2={BASE} />
        {time.ticks(TICKS).slice(1).map((at) => (
          <line key={at} class="grid" x1={time(at)} x2={time(at)} y1={BASE} y2={BASE + 4} />
        ))}
        {under && <rect class="under" x={under.slice * step} y="0" width={step} height={HEIGHT} />}
        {groups(strip.filled).map(([name, slices]) => (
          <path key={name} class={`tick ${name}`} d={slices.map((slice) => bar(slice, step)).join('')} />
        ))}
      </svg>
      <figcaption class="dim">
        <span>0</span>
        <span aria-live="off">{under ? sentence(under, strip.width) : legend(strip.filled)}</span>
        <span>{durationText(data.duration)}</span>
      </figcaption>
    </figure>
  );
}

function legend(slices: TimeSlice[]): string {
  const again = slices.some((slice) => slice.superseded && needsAttention(slice.outcome)) ? t(', half tall ones were run again') : '';
  return t('{0} in time; tall marks did not pass', count(attempts(slices), 'start')) + again;
}

function attempts(slices: TimeSlice[]): number {
  return slices.reduce((sum, slice) => sum + slice.attempts, 0);
}

function described(data: RunData): string {
  const tall = data.strip.filled.filter((slice) => needsAttention(slice.outcome)).length;
  return t('When tests began, over {0}: in {1} of {2} moments one did not pass', durationText(data.duration), tall, data.strip.filled.length);
}

/** One path for all marks of one look. */
function groups(slices: TimeSlice[]): [string, TimeSlice[]][] {
  const groups = new Map<string, TimeSlice[]>();
  for (const slice of slices) {
    const name = slice.superseded && needsAttention(slice.outcome) ? 'superseded' : slice.outcome;
    groups.set(name, [...(groups.get(name) ?? []), slice]);
  }
  return [...groups];
}

function bar(slice: TimeSlice, step: number): string {
  const x = (slice.slice + 0.5) * step;
  const width = Math.max(1.4, step * 0.5);
  if (slice.outcome === 'passed') return rect(x, width, BASE - CALM, BASE);
  if (!needsAttention(slice.outcome)) return rect(x, width, BASE - 5, BASE);
  const wide = width * 1.5;
  if (slice.superseded) return rect(x, wide, BASE - 30, BASE);
  const feet = rect(x, wide, BASE + 3, BASE + 8);
  if (slice.outcome === 'errored') return rect(x, wide, 6, 36) + rect(x, wide, 40, BASE) + feet;
  if (slice.outcome === 'unfinished') return rect(x, wide, 6, 18) + rect(x, wide, 36, BASE) + feet;
  return rect(x, wide, 6, BASE) + feet;
}

function rect(middle: number, width: number, top: number, bottom: number): string {
  return `M${(middle - width / 2).toFixed(1)} ${top}h${width.toFixed(1)}V${bottom}h-${width.toFixed(1)}z`;
}

function nearest(slices: TimeSlice[], at: number): TimeSlice {
  return slices.reduce((best, slice) => (Math.abs(slice.slice + 0.5 - at) < Math.abs(best.slice + 0.5 - at) ? slice : best));
}

function sentence(slice: TimeSlice, width: number): string {
  const when = offset(slice.slice * width);
  if (slice.attempts === 1) return `${when} ${slice.name}, ${outcomeText(slice.outcome)}${slice.superseded ? t(', run again later') : ''}`;
  const bad = slice.attention === 0 ? t('none of which failed') : t('{0} of which did not pass, as {1}', slice.attention, slice.name);
  return `${when} ${count(slice.attempts, 'start')}, ${bad}`;
}

function linkOf(slice: TimeSlice): string {
  return slice.attempts === 1 || slice.attention > 0 ? testLink(slice.id) : testsLink({ group: 'nothing' });
}
