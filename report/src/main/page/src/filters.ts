// Which tests a link asks for. Each filter is a word of the address; together they narrow.
import { needsAttention } from './store';
import { groupsOf, type Group } from './groups';
import type { Row, RunData } from './types';

export const FILTERS = ['outcome', 'failing', 'news', 'flaky', 'class', 'package', 'tag', 'owner', 'severity'] as const;
export type Filters = Partial<Record<(typeof FILTERS)[number], string>>;

const NO_REASONS = { reasons: [] } as unknown as RunData;

export function filtersIn(params: URLSearchParams): Filters {
  return Object.fromEntries(FILTERS.map((name) => [name, params.get(name) ?? '']).filter(([, value]) => value)) as Filters;
}

export function isFiltered(filters: Filters): boolean {
  return Object.keys(filters).length > 0;
}

export function keeps(filters: Filters, row: Row): boolean {
  if (filters.outcome && !filters.outcome.split(',').includes(row.outcome)) return false;
  if (filters.failing && !needsAttention(row.outcome)) return false;
  if (filters.news && !row.fresh) return false;
  if (filters.flaky && !row.recovered) return false;
  return (
    inGroup(row, 'class', filters.class) &&
    inGroup(row, 'package', filters.package) &&
    inGroup(row, 'tag', filters.tag) &&
    inGroup(row, 'owner', filters.owner) &&
    inGroup(row, 'severity', filters.severity)
  );
}

function inGroup(row: Row, group: Group, name: string | undefined): boolean {
  return !name || groupsOf(row, NO_REASONS, group).includes(name);
}
