// The groups that a row is in. RowGroups.java says the same of the first two, so that the summary's tables agree with the list.
import { outcomeText } from '../data/outcomes';
import type { Row, Rule, RunData } from '../data/types';

export const GROUPS = ['class', 'module', 'package', 'outcome', 'reason', 'label', 'tag', 'owner', 'severity', 'worker', 'nothing'] as const;
export type Group = (typeof GROUPS)[number];

export function groupsOf(row: Row, data: RunData, group: Group): string[] {
  switch (group) {
    case 'class':
      return [classOf(row)];
    case 'module':
      return [row.module ?? 'no module'];
    case 'package':
      return [packageOf(row)];
    case 'outcome':
      return [outcomeText(row.outcome)];
    case 'reason':
      return [row.reason === undefined ? (row.why ?? 'no reason') : data.reasons[row.reason]!.title];
    case 'label':
      return [ruleOf(row, data)?.label ?? 'no label'];
    case 'tag':
      return row.tags ?? ['no tag'];
    case 'owner':
      return [ruleOf(row, data)?.owner ?? row.about?.owner ?? 'no owner'];
    case 'severity':
      return [row.about?.severity ?? 'no severity'];
    case 'worker':
      return [row.thread ? `${row.worker}, ${row.thread}` : row.worker];
    default:
      return [''];
  }
}

/** What the team says of it. */
export function ruleOf(row: Row, data: RunData): Rule | undefined {
  return row.rule === undefined ? undefined : data.rules?.[row.rule];
}

function classOf(row: Row): string {
  const name = row.path.join(' › ') || row.className || row.name;
  return row.module ? `${row.module} › ${name}` : name;
}

function packageOf(row: Row): string {
  if (row.className) return before(row.className, '.');
  return before(row.source ?? '', '/');
}

function before(name: string, sign: string): string {
  const at = name.lastIndexOf(sign);
  return at < 0 ? 'no package' : name.slice(0, at);
}
