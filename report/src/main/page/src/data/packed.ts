// A page in one file: what would be files beside it lies in blocks that no browser runs, each under its file's name. Data is
// deflated; an attachment becomes something that the browser can show when it is looked at.
const RUN = 'data/run.js';

/** The run's block stands before this script; the others come behind it. */
export const isPacked = document.getElementById(RUN) !== null;

/** When all of the file was read. */
const complete = new Promise<void>((done) => {
  if (document.readyState === 'loading') addEventListener('DOMContentLoaded', () => done());
  else done();
});

const addresses = new Map<string, string>();

/** Where an attachment can be loaded from; undefined where this page has not got it. */
export function address(href: string): string | undefined {
  if (!isPacked) return href;
  const known = addresses.get(href);
  if (known) return known;
  const block = document.getElementById(href);
  if (!block) return undefined;
  const made = URL.createObjectURL(new Blob([bytesOf(block)], { type: block.dataset['type'] ?? 'text/plain' }));
  addresses.set(href, made);
  return made;
}

/** What a data file calls the page with. */
export interface Call {
  name: string;
  id: string;
  value: unknown;
}

/** The run's summary, which is as it would be in its file, and stands before this script. */
export function packedRun(): Call | undefined {
  const block = document.getElementById(RUN);
  return block ? call(block.textContent ?? '') : undefined;
}

/** What is in a data file; undefined where there is none. */
export async function packedFile(name: string): Promise<Call | undefined> {
  await complete;
  const block = document.getElementById(name);
  if (!block) return undefined;
  const stream = new Blob([bytesOf(block)]).stream().pipeThrough(new DecompressionStream('deflate'));
  return call(await new Response(stream).text());
}

/** `verbale.NAME("ID", VALUE);`, where the id may be missing. */
function call(text: string): Call {
  const [, name = '', id = ''] = /^verbale\.(\w+)\((?:"(\w+)",)?/.exec(text) ?? [];
  const begin = `verbale.${name}(`.length + (id ? id.length + 3 : 0);
  return { name, id, value: JSON.parse(text.slice(begin, text.lastIndexOf(');'))) };
}

function bytesOf(block: Element): Uint8Array<ArrayBuffer> {
  const text = atob(block.textContent ?? '');
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
  return bytes;
}
