// What lies in entries, at any depth.
import type { Attachment, Entry, Exchange, Log } from './types';

/** Those in steps too, in their order. */
export function attachmentsIn(entries: Entry[]): Attachment[] {
  return entries.flatMap((entry) => ('entries' in entry ? attachmentsIn(entry.entries) : entry.type === 'attachment' ? [entry] : []));
}

/** Those in steps too, in their order. */
export function exchangesIn(entries: Entry[]): Exchange[] {
  return entries.flatMap((entry) => ('entries' in entry ? exchangesIn(entry.entries) : entry.type === 'exchange' ? [entry] : []));
}

/** Those in steps too, in their order. */
export function logsIn(entries: Entry[]): Log[] {
  return entries.flatMap((entry) => ('entries' in entry ? logsIn(entry.entries) : entry.type === 'log' ? [entry] : []));
}
