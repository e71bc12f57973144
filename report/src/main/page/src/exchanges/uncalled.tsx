// Operations of an OpenAPI document that answers were held against, and that nobody called.
import { useMemo } from 'preact/hooks';
import { COLUMN } from './endpoints';
import { MAX_EXCHANGES } from '../data/loaded';
import { whole } from '../words/text';
import type { Contract, ExchangeRow, RunData } from '../data/types';
import { t } from '../words/texts';

const OPEN = 8;

export function Uncalled({ data, rows }: { data: RunData; rows: ExchangeRow[] }) {
  const found = useMemo(() => (data.contracts ?? []).map((one) => ({ ...one, uncalled: uncalledOf(one, rows) })), [rows.length]);
  if (rows.length === 0 || data.exchanges > MAX_EXCHANGES) return null;
  return (
    <>
      {found.map(({ name, operations, uncalled }) => (
        <section class="uncalled" key={name}>
          {uncalled.length === 0 ? (
            <p class="dim">{t('All {0} operations of {1} were called.', whole(operations.length), name)}</p>
          ) : (
            <details open={uncalled.length <= OPEN}>
              <summary>{t('{0} of {1} operations of {2} were not called', whole(uncalled.length), whole(operations.length), name)}</summary>
              <ul>
                {uncalled.map(([method, path]) => (
                  <li key={method + path}>
                    <code>
                      <b>{method}</b> {path}
                    </code>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </section>
      ))}
    </>
  );
}

/** A request belongs to the operation with the fewest parts left open, wherever the document's servers are. */
export function uncalledOf(contract: Contract, rows: ExchangeRow[]): [method: string, path: string][] {
  const byMethod = new Map<string, { at: number; open: number; pattern: RegExp }[]>();
  contract.operations.forEach(([method, path], at) => {
    const open = path.split('{').length;
    byMethod.set(method, [...(byMethod.get(method) ?? []), { at, open, pattern: patternOf(path) }]);
  });
  for (const all of byMethod.values()) all.sort((a, b) => a.open - b.open);
  const called = new Set<number>();
  const seen = new Set<string>();
  for (const row of rows) {
    const path = row[COLUMN.url].replace(/^[a-z][a-z0-9+.-]*:\/\/[^/?#]*/i, '').replace(/[?#].*$/, '') || '/';
    const request = `${row[COLUMN.method]} ${path}`;
    if (seen.has(request)) continue;
    seen.add(request);
    const one = byMethod.get(row[COLUMN.method])?.find(({ pattern }) => pattern.test(path));
    if (one) called.add(one.at);
  }
  return contract.operations.filter((_, at) => !called.has(at));
}

function patternOf(path: string): RegExp {
  const parts = path.split(/\{[^}/]*\}/).map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
  return new RegExp(`${parts.join('[^/]+')}$`);
}
