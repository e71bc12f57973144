// Numbers and times as the reader writes them.
import { language, locale, NOUNS } from './texts';

/** By the rules of DurationText.java. */
export function durationText(micros: number): string {
  if (micros < 1_000) return `${micros} µs`;
  if (micros < 1_000_000) return `${Math.floor(micros / 1_000)} ms`;
  if (micros < 9_950_000) return `${decimal(micros / 1e6, 1)} s`;
  const seconds = Math.round(micros / 1e6);
  if (seconds < 60) return `${seconds} s`;
  if (seconds < 3_600) return `${Math.floor(seconds / 60)} min ${two(seconds % 60)} s`;
  return `${Math.floor(seconds / 3_600)} h ${two(Math.floor((seconds % 3_600) / 60))} min`;
}

/** A moment after a beginning, for a column: `0:01.234`. */
export function offset(micros: number): string {
  const millis = Math.floor(Math.max(0, micros) / 1_000);
  const minutes = Math.floor(millis / 60_000);
  return `${minutes}:${two(Math.floor((millis % 60_000) / 1_000))}.${String(millis % 1_000).padStart(3, '0')}`;
}

export function moment(started: string, at: number): string {
  return new Date(Date.parse(started) + at / 1_000).toLocaleString(locale(), {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    timeZoneName: 'short',
  });
}

export function day(when: string): string {
  return new Date(when).toLocaleDateString(locale(), { day: 'numeric', month: 'short', year: 'numeric' });
}

export function bytes(size: number): string {
  if (size < 1_000) return `${size} B`;
  if (size < 1_000_000) return `${decimal(size / 1_000, size < 10_000 ? 1 : 0)} kB`;
  return `${decimal(size / 1_000_000, 1)} MB`;
}

export function count(number: number, noun: keyof typeof NOUNS): string {
  const forms = NOUNS[noun];
  return `${whole(number)} ${forms[(number === 1 ? 0 : 1) + (language.value === 'it' ? 2 : 0)]}`;
}

export function whole(number: number): string {
  return number.toLocaleString(locale());
}

/** With so many digits behind the sign that the reader puts there. */
export function decimal(number: number, digits: number): string {
  return number.toLocaleString(locale(), { minimumFractionDigits: digits, maximumFractionDigits: digits });
}

function two(number: number): string {
  return String(number).padStart(2, '0');
}
