// Text in which some words are marked.
const MAX_FOUND = 2_000;

export function Marked({ text, words }: { text: string; words: string }) {
  if (!words) return <>{text}</>;
  return <>{split(text, words).map((part, index) => (part.hit ? <mark key={index}>{part.text}</mark> : part.text))}</>;
}

/** How often the words are in the text, 2,000 at the most. */
export function hitsIn(text: string, words: string): number {
  return split(text, words).filter((part) => part.hit).length;
}

export function split(text: string, words: string): { text: string; hit: boolean }[] {
  if (!words) return [{ text, hit: false }];
  const parts = [];
  const small = text.toLowerCase();
  const wanted = words.toLowerCase();
  let from = 0;
  for (let found = 0; found < MAX_FOUND; found++) {
    const hit = small.indexOf(wanted, from);
    if (hit < 0) break;
    parts.push({ text: text.slice(from, hit), hit: false }, { text: text.slice(hit, hit + wanted.length), hit: true });
    from = hit + wanted.length;
  }
  parts.push({ text: text.slice(from), hit: false });
  return parts;
}
