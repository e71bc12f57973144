// Which tests a link asks for. Each filter is a word of the address; together they narrow.
import { isWhole } from '../data/types';
import { needsAttention } from '../data/outcomes';
import { groupsOf, type Group } from './groups';
import type { Row, RunData } from '../data/types';

export const FILTERS = ['outcome', 'failing', 'news', 'flaky', 'module', 'class', 'package', 'label', 'tag', 'owner', 'severity', 'reason'] as const;
export type Filters = Partial<Record<(typeof FILTERS)[number], string>>;

export function filtersIn(params: URLSearchParams): Filters {
  return Object.fromEntries(FILTERS.map((name) => [name, params.get(name) ?? '']).filter(([, value]) => value)) as Filters;
}

export function isFiltered(filters: Filters): boolean {
  return Object.keys(filters).length > 0;
}

export function keeps(filters: Filters, row: Row, data: RunData): boolean {
  if (filters.outcome && !filters.outcome.split(',').includes(row.outcome)) return false;
  if (filters.failing && !needsAttention(row.outcome)) return false;
  if (filters.news && !row.fresh) return false;
  if (filters.flaky && !row.recovered) return false;
  if (filters.reason && !isOfReason(row, filters.reason, data)) return false;
  return (
    inGroup(row, data, 'module', filters.module) &&
    inGroup(row, data, 'class', filters.class) &&
    inGroup(row, data, 'package', filters.package) &&
    inGroup(row, data, 'label', filters.label) &&
    inGroup(row, data, 'tag', filters.tag) &&
    inGroup(row, data, 'owner', filters.owner) &&
    inGroup(row, data, 'severity', filters.severity)
  );
}

function inGroup(row: Row, data: RunData, group: Group, name: string | undefined): boolean {
  return !name || groupsOf(row, data, group).includes(name);
}

/** By its id. */
function isOfReason(row: Row, id: string, data: RunData): boolean {
  const reason = row.reason === undefined ? undefined : data.reasons[row.reason];
  return isWhole(reason) && reason.id === id;
}
