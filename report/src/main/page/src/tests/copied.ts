// What was found in the list of tests, as text for other tools.
import { bash } from '../words/quoting';
import { keyOf } from '../data/rows';
import type { Row, RunData } from '../data/types';

export const copied: { name: 'ids' | 'CSV' | 'Maven command'; text(rows: Row[], data: RunData): string }[] = [
  { name: 'ids', text: (rows) => rows.map(keyOf).join('\n') },
  { name: 'CSV', text: csv },
  { name: 'Maven command', text: maven },
];

function csv(rows: Row[]): string {
  const lines = rows.map((row) => [keyOf(row), row.name, row.outcome, String(row.duration), (row.tags ?? []).join(' '), row.message ?? '']);
  return [['id', 'name', 'outcome', 'microseconds', 'tags', 'message'], ...lines].map((cells) => cells.map(cell).join(',')).join('\r\n');
}

/** A text that a table would take for a formula begins with an apostrophe. */
function cell(text: string): string {
  const safe = /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe;
}

/** Of anything else, as of a run that a stranger wrote, Surefire would make a pattern. */
const CLASS_NAME = /^[\p{L}\p{N}_$.]+$/u;

/** A test whose key does not begin with its method stands for its class. */
function maven(rows: Row[]): string {
  const methods = new Map<string, Set<string>>();
  for (const row of rows) {
    if (!row.className || !CLASS_NAME.test(row.className)) continue;
    const names = methods.get(row.className) ?? new Set();
    methods.set(row.className, names.add(methodOf(row)));
  }
  const tests = [...methods].map(([name, all]) => (all.has('') ? name : `${name}#${[...all].join('+')}`));
  return `mvn verify ${bash('-Dtest=' + tests.join(','))} -Dsurefire.failIfNoSpecifiedTests=false`;
}

function methodOf(row: Row): string {
  const rest = keyOf(row).startsWith(row.className + '.') ? keyOf(row).slice(row.className!.length + 1) : '';
  return /^[\p{L}\p{N}_$]+(?=\()/u.exec(rest)?.[0] ?? '';
}
