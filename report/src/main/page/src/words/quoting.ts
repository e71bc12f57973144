// Data in the languages in which requests are copied. Each function makes one word or one literal of whatever it is given:
// nothing of it is ever syntax, to the shell, to a terminal into which it is pasted, or to a compiler.

/** Control characters, and marks that turn the direction of text around, so that a person reads something else. */
const UNSEEN = /[\x00-\x09\x0b-\x1f\x7f-\x9f\u061c\u200e\u200f\u2028-\u202e\u2066-\u2069\ufeff]/;
const decoder = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true });

function asText(bytes: Uint8Array): string | undefined {
  try {
    return decoder.decode(bytes);
  } catch {
    return undefined;
  }
}

/**
 * One word for bash: in single quotes nothing means anything but the quote itself. What a terminal might take for a key, or
 * is no text, is written by number in the quotes of bash's own, `$'…'`. It cannot hold a zero.
 */
export function bash(data: string | Uint8Array): string {
  const bytes = typeof data === 'string' ? new TextEncoder().encode(data) : data;
  const text = asText(bytes);
  const recalls = text?.includes('\n') && text.includes('!'); // older ones look for earlier commands in such a line
  if (text !== undefined && !UNSEEN.test(text) && !recalls) return "'" + text.replaceAll("'", "'\\''") + "'";
  return "$'" + numbered(bytes, { '\\': '\\\\', "'": "\\'", '!': '\\x21', '\n': '\\n', '\r': '\\r', '\t': '\\t' }, (byte) => '\\x' + hex(byte)) + "'";
}

/** Text quoted for the format of `printf`, which can hold any byte: by number, in octal, with its own signs doubled. */
export function printfFormat(bytes: Uint8Array): string {
  const octal = (byte: number) => '\\' + byte.toString(8).padStart(3, '0');
  return "'" + numbered(bytes, { '\\': '\\\\', "'": '\\047', '%': '%%', '\n': '\\n', '\r': '\\r', '\t': '\\t' }, octal) + "'";
}

/** Numbers have all their digits, so that a digit behind one is none of it. */
function numbered(bytes: Uint8Array, signs: Record<string, string>, byNumber: (byte: number) => string): string {
  let text = '';
  for (const byte of bytes) text += signs[String.fromCharCode(byte)] ?? (byte >= 0x20 && byte < 0x7f ? String.fromCharCode(byte) : byNumber(byte));
  return text;
}

function hex(byte: number): string {
  return byte.toString(16).padStart(2, '0');
}

/**
 * A value in a file of curl's options: in double quotes, where a backslash escapes. Whatever is in it, it is of one line, so
 * that it may stand in a here-string of PowerShell, which only a line that begins with a quote can end.
 */
export function curlOption(text: string): string {
  const signs: Record<string, string> = { '\\': '\\\\', '"': '\\"', '\n': '\\n', '\r': '\\r', '\t': '\\t', '\v': '\\v' };
  return '"' + text.replace(/[\\"\n\r\t\v]/g, (c) => signs[c]!) + '"';
}

/** What an option file of curl can say: no zero and no other control character, which a terminal might take for a key. */
export function fitsCurlOption(text: string): boolean {
  return !/[\x00-\x08\x0c\x0e-\x1f\x7f-\x9f\u061c\u200e\u200f\u2028-\u202e\u2066-\u2069\ufeff]/.test(text);
}

/** A string of PowerShell in single quotes: each of the signs that it takes for one is doubled, the typographic ones too. */
export function powerShell(text: string): string {
  return "'" + text.replace(/['\u2018\u2019\u201a\u201b]/g, '$&$&').replace(/[\x00-\x1f\x7f-\x9f]/g, '_') + "'";
}

/** A literal of Java, in ASCII. */
export function java(text: string): string {
  const signs: Record<string, string> = { '\\': '\\\\', '"': '\\"', '\n': '\\n', '\r': '\\r', '\t': '\\t' };
  let literal = '';
  for (let i = 0; i < text.length; i++) {
    const char = text[i]!;
    const code = text.charCodeAt(i);
    literal += signs[char] ?? (code >= 0x20 && code < 0x7f ? char : '\\u' + code.toString(16).padStart(4, '0'));
  }
  return '"' + literal + '"';
}

export function base64(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text);
}
