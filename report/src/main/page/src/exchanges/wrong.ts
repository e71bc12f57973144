// Which values of a response's JSON a check did not take: as JSON pointers, from the names of failed checks.
import { createContext } from 'preact';

/** Those of the body that is drawn. */
export const Wrong = createContext<ReadonlySet<string>>(new Set());

export function wrongIn(checks: [outcome: string, name: string][] | undefined): ReadonlySet<string> {
  const wrong = new Set<string>();
  for (const [outcome, name] of checks ?? []) {
    if (outcome === 'passed') continue;
    const pointer = /^contract of .* at (\/\S*)$/.exec(name)?.[1] ?? pointerOf(/^body ([^\s:]+):/.exec(name)?.[1]);
    if (pointer) wrong.add(pointer);
  }
  return wrong;
}

/** Of a path such as `beds[1].metres`; nothing of one that calculates. */
function pointerOf(path: string | undefined): string | undefined {
  if (!path || !/^\w+(\.\w+|\[\d+\])*$/.test(path)) return undefined;
  return '/' + path.replace(/\[(\d+)\]/g, '.$1').split('.').join('/');
}

/** The pointer of a part. */
export const inside = (at: string, name: string) => `${at}/${name.replace(/~/g, '~0').replace(/\//g, '~1')}`;

/** Whether one of them is below. */
export function holdsWrong(wrong: ReadonlySet<string>, at: string): boolean {
  for (const one of wrong) if (one.startsWith(at + '/')) return true;
  return false;
}
