// A list of any length of which only the lines in sight are in the document. Their heights are known, so the scrollbar is right.
import { useComputed, useSignal, useSignalEffect } from '@preact/signals';
import { useMemo, useRef } from 'preact/hooks';
import { Mark } from '../marks/mark';
import { cell, mark, selected, type Column } from './selection';
import { needsAttention } from '../data/outcomes';
import { testLink } from '../data/route';
import { count, durationText, offset, whole } from '../words/text';
import type { Row } from '../data/types';
import { known, t } from '../words/texts';

export type Line = { group: string; rows: Row[]; size: number } | { row: Row };

const ROW_HEIGHT = 54;
const GROUP_HEIGHT = 58;
const MORE = 8; // above and below what is in sight

interface Props {
  lines: Line[];
  longest: number;
  inClass: boolean;
  columns: Column[];
}

export function Lines({ lines, longest, inClass, columns }: Props) {
  const rows = useMemo(() => lines.flatMap((line) => ('row' in line ? [line.row] : [])), [lines]);
  const box = useRef<HTMLDivElement>(null);
  const tops = useMemo(() => topsOf(lines), [lines]);
  const scrolled = useSignal(0);
  const height = useSignal(innerHeight);
  useSignalEffect(() => {
    const measure = () => {
      scrolled.value = -(box.current?.getBoundingClientRect().top ?? 0);
      height.value = innerHeight;
    };
    measure();
    addEventListener('scroll', measure, { passive: true });
    addEventListener('resize', measure);
    return () => {
      removeEventListener('scroll', measure);
      removeEventListener('resize', measure);
    };
  });
  const printing = useComputed(() => matchMedia('print').matches);
  const from = Math.max(0, firstBelow(tops, scrolled.value) - MORE);
  const to = printing.value ? lines.length : Math.min(lines.length, firstBelow(tops, scrolled.value + height.value) + MORE);
  return (
    <div ref={box} class="lines" style={{ height: `${tops[lines.length]}px` }}>
      <div style={{ transform: `translateY(${tops[from]}px)` }}>
        {lines.slice(from, to).map((line) =>
          'row' in line ? (
            <RowLine key={line.row.id} row={line.row} longest={longest} inClass={inClass} columns={columns} onMark={(through) => mark(line.row, rows, through)} />
          ) : (
            <GroupLine key={'group ' + line.group} name={line.group} rows={line.rows} size={line.size} />
          ),
        )}
      </div>
    </div>
  );
}

/** The top of each, and behind the last one the whole height. */
function topsOf(lines: Line[]): Float64Array {
  const tops = new Float64Array(lines.length + 1);
  lines.forEach((line, index) => (tops[index + 1] = tops[index]! + ('row' in line ? ROW_HEIGHT : GROUP_HEIGHT)));
  return tops;
}

function firstBelow(tops: Float64Array, y: number): number {
  let low = 0;
  let high = tops.length - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (tops[middle]! < y) low = middle + 1;
    else high = middle;
  }
  return low;
}

function GroupLine({ name, rows, size }: { name: string; rows: Row[]; size: number }) {
  const failing = rows.filter((row) => needsAttention(row.outcome)).length;
  return (
    <div class="group-line">
      <h2>
        <bdi>{name.startsWith('no ') ? known(name) : name}</bdi>
      </h2>
      <span class="dim">
        {failing === 0 ? count(rows.length, 'test') : t('{0} of {1} did not pass', whole(failing), count(rows.length, 'test'))}
        {size > rows.length && t(', of {0} in all', whole(size))}
      </span>
    </div>
  );
}

function RowLine({ row, longest, inClass, columns, onMark }: { row: Row; longest: number; inClass: boolean; columns: Column[]; onMark(through: boolean): void }) {
  const attempts = row.attempts ? (row.recovered ? t('Flaky: passed on attempt {0}.', row.attempts) : t('Attempt {0} of {1}.', row.attempts, row.attempts)) + ' ' : '';
  const under = attempts + (row.message ?? (row.why ? t('The one before: {0}', row.why) : '')) || (row.data ?? (inClass ? '' : row.path.join(' › ')));
  return (
    <div class={`row ${selected.value.has(row.id) ? 'marked' : ''}`}>
      <input type="checkbox" checked={selected.value.has(row.id)} aria-label={t('Select {0}', row.name)} onClick={(event) => onMark(event.shiftKey)} />
      <a class={`row-line ${row.outcome}`} href={testLink(row.id)}>
        <span class="time">{offset(row.at)}</span>
        <Mark outcome={row.outcome} />
        <span class="what">
          <span class="name">
            <bdi>{row.name}</bdi>
          </span>
          {under && <span class="dim under">{under}</span>}
        </span>
        <span class="cells">
          {columns.map((column) =>
            column === 'tag' ? (
              <span key={column} class="tags">
                {row.tags?.map((tag) => (
                  <span key={tag}>{tag}</span>
                ))}
              </span>
            ) : (
              <span key={column} class="cell" title={cell(row, column)}>
                {cell(row, column)}
              </span>
            ),
          )}
        </span>
        <span class="duration">
          {durationText(row.duration)}
          <span class="bar" style={{ width: `${Math.max(1, (100 * row.duration) / longest)}%` }} />
        </span>
      </a>
    </div>
  );
}
