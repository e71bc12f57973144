// What long texts share stands once, in data/pieces: where ten thousand tests fail in one place, their stacks differ in a line.
export const PIECES_A_FILE = 400;

/** A long text in its data file: what is its own, and numbers of what it has in common with others. */
export interface Shared {
  /** How the names of the files begin that hold the pieces. */
  from?: string;
  parts: (string | number)[];
}

/** Where in a value such a text stands. */
interface Found {
  holder: Record<string, unknown>;
  name: string;
  text: Shared;
}

/** The name of the file that holds the piece of that number. */
export const piecesFile = (from = '', piece: number) => `${from}${Math.floor(piece / PIECES_A_FILE)}`;

/** All of them in `value`, which came from JSON. */
export function sharedIn(value: unknown): Found[] {
  const found: Found[] = [];
  const left: unknown[] = [value];
  while (left.length > 0) {
    const one = left.pop();
    if (Array.isArray(one)) one.forEach((inner) => isObject(inner) && left.push(inner));
    else if (isObject(one))
      for (const [name, inner] of Object.entries(one)) {
        if (isShared(inner)) found.push({ holder: one, name, text: inner });
        else if (isObject(inner)) left.push(inner);
      }
  }
  return found;
}

/** The text itself; a part that is missing is named. */
export const whole = ({ from, parts }: Shared, piecesOf: (file: string) => string[] | undefined): string =>
  parts
    .map((part) => {
      if (typeof part === 'string') return part;
      const file = piecesFile(from, part);
      return piecesOf(file)?.[part % PIECES_A_FILE] ?? `\t(it stands in data/pieces/${file}.js, which is missing)\n`;
    })
    .join('');

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null;
}

/** Only in the place of a text: nothing else of that shape has a list of that name. */
function isShared(value: unknown): value is Shared {
  return isObject(value) && Array.isArray(value['parts']) && value['parts'].every((part) => typeof part !== 'object');
}
