// What a log says of an exchange: the tested service's, where a source of it is registered, or the suite's own.
import type { Exchange, Log } from '../data/types';

export interface Logged {
  by: 'trace' | 'time';
  lines: Log[];
}

const MOMENT = /(\d{4}-\d\d-\d\d)[T ](\d\d:\d\d:\d\d(?:[.,]\d{1,9})?)\s?(Z|[+-]\d\d:?\d\d)/;
const TRACE = /\b[0-9a-f]{32}\b/;

/** Clocks of two processes, and moments that are cut to milliseconds. */
const TOLERANCE = 2;

/** Lines that name its trace; or else those whose own moment, with its zone, is while it lasted. */
export function loggedOf(logs: Log[], exchange: Exchange, started: string): Logged {
  const id = exchange.trace?.id;
  const named = id ? withBelow(logs, (log) => log.text.includes(id)) : [];
  if (named.length > 0 || exchange.duration === undefined) return { by: 'trace', lines: named };
  const from = Date.parse(started) + exchange.at / 1000;
  const to = from + exchange.duration / 1000;
  const isMeanwhile = (log: Log) => {
    const at = momentOf(log.text);
    return at !== undefined && at >= from - TOLERANCE && at <= to + TOLERANCE && !TRACE.test(log.text);
  };
  return { by: 'time', lines: withBelow(logs, isMeanwhile) };
}

/** What is set in below a line belongs to it, as the frames of an error do. */
function withBelow(logs: Log[], isIn: (log: Log) => boolean): Log[] {
  let isOpen = false;
  return logs.filter((log, index) => {
    const isBelow = isOpen && /^\s/.test(log.text) && log.logger === logs[index - 1]?.logger;
    isOpen = isIn(log) || isBelow;
    return isOpen;
  });
}

/** In milliseconds; a line that says no zone may be of any. */
function momentOf(text: string): number | undefined {
  const [, day, time, zone] = MOMENT.exec(text.slice(0, 100)) ?? [];
  if (!day || !time || !zone) return undefined;
  const at = Date.parse(`${day}T${time.replace(',', '.')}${zone.length === 5 ? zone.slice(0, 3) + ':' + zone.slice(3) : zone}`);
  return Number.isNaN(at) ? undefined : at;
}
