// The body of a request or a response: as a tree, as lines, as events, as parts, or raw; to be searched and copied.
import { useContext, useMemo, useState } from 'preact/hooks';
import { jsonOf, type Json } from './json';
import { Marked, hitsIn } from '../marks/marked';
import { Download } from '../attachments/download';
import { address } from '../data/packed';
import { texts } from '../data/loaded';
import { bytes, count, whole as number } from '../words/text';
import { Wrong, holdsWrong, inside as below } from './wrong';
import type { Body } from '../data/types';
import { t } from '../words/texts';

const IMAGES = ['image/png', 'image/jpeg', 'image/gif', 'image/webp'];
const LONGEST_TREE = 1_000_000;
/** Chromium's time for details that lie in others grows with the square of their number: seconds for 2,000. */
const AT_ONCE = 200;
/** What is shorter is seen at a glance. */
const SHORTEST_SEARCHED = 150;

export function BodyView({ body }: { body: Body }) {
  const [whole, setWhole] = useState(false);
  const file = whole && body.text !== undefined ? texts.get(body.text).value : undefined;
  const text = file?.state === 'here' ? file.value.text : body.inline;
  const excerpt = body.inline !== undefined && body.text !== undefined && file?.state !== 'here';
  const size = body.size < 0 ? '' : bytes(body.size) + (body.decoded ? `, ${t('{0} unpacked', bytes(body.decoded))}` : '');
  return (
    <div class="body">
      <p class="dim">
        {body.mediaType || t('no media type')} {size}
        {text !== undefined && <Copy label={t('copy')} text={() => text} />}
        {body.href && <Download href={body.href} />}
      </p>
      {body.leftOut && <p class="dim">{t('Not kept: {0}.', body.leftOut)}</p>}
      {body.cut && <p class="dim">{t('Only the beginning was kept.')}</p>}
      {excerpt && (
        <p class="dim">
          {t('Only the beginning is shown.')}
          <button class="quiet whole" onClick={() => setWhole(true)}>
            {t('show all that was kept')}
          </button>
        </p>
      )}
      {IMAGES.includes(plainType(body)) && body.href && <img src={address(body.href)} alt={t('The body')} />}
      {text !== undefined && text !== '' && <BodyText key={String(whole)} text={text} type={plainType(body)} />}
      {body.parts?.map((part, index) => (
        <section key={index} class="part">
          <h4>
            {part.name || t('a part')} {part.fileName !== undefined && <span class="dim">{t('the file {0}', part.fileName)}</span>}
          </h4>
          <BodyView body={part.body} />
        </section>
      ))}
    </div>
  );
}

function plainType(body: Body): string {
  return body.mediaType.replace(/;.*/, '').trim().toLowerCase();
}

function BodyText({ text, type }: { text: string; type: string }) {
  const [raw, setRaw] = useState(false);
  const [words, setWords] = useState('');
  const [tree, setTree] = useState({ open: true, turn: 0 });
  const values = useMemo(() => valuesIn(text, type), [text, type]);
  const events = useMemo(() => (type === 'text/event-stream' ? eventsIn(text) : undefined), [text, type]);
  const special = values !== undefined || events !== undefined || isMarkup(type);
  const hits = words ? hitsIn(text, words) : 0;
  return (
    <>
      <p class="body-keys">
        {text.length > SHORTEST_SEARCHED && (
          <input type="search" placeholder={t('Search')} aria-label={t('Search in this body')} value={words} onInput={(e) => setWords(e.currentTarget.value)} />
        )}
        {words && <span class="dim">{hits === 0 ? t('not found') : count(hits, 'hit')}</span>}
        {special && (
          <button class="quiet" aria-pressed={raw} onClick={() => setRaw(!raw)}>
            {raw ? t('formatted') : t('raw')}
          </button>
        )}
        {values !== undefined && !raw && (
          <button class="quiet" onClick={() => setTree({ open: !tree.open, turn: tree.turn + 1 })}>
            {tree.open ? t('collapse all') : t('expand all')}
          </button>
        )}
      </p>
      {raw || !special ? (
        <pre>
          <Marked text={text} words={words} />
        </pre>
      ) : values ? (
        <div key={tree.turn}>
          <Trees values={values.map((value) => ({ value, at: '' }))} words={words} open={tree.open} />
        </div>
      ) : events ? (
        <table class="events">
          <tbody>
            {events.map((event, index) => (
              <tr key={index}>
                <th scope="row">{event.name}</th>
                <td>
                  <Marked text={event.data} words={words} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <pre>
          <Marked text={indented(text)} words={words} />
        </pre>
      )}
    </>
  );
}

function isMarkup(type: string): boolean {
  return /xml|html/.test(type);
}

/** JSON, or lines each of which is JSON; undefined where it is neither. */
export function valuesIn(text: string, type: string): Json[] | undefined {
  if (text.length > LONGEST_TREE) return undefined;
  if (/ndjson|jsonl|json-seq/.test(type)) {
    const lines = text.split('\n').filter((line) => line.trim());
    const values = lines.map((line) => jsonOf(line.replace(/^\x1e/, ''))).filter((value) => value !== undefined);
    return values.length > 0 && values.length === lines.length ? values : undefined;
  }
  const value = jsonOf(text);
  return value && value.kind !== 'leaf' ? [value] : undefined;
}

/** Server-sent events, as the HTML standard reads their lines. */
function eventsIn(text: string): { name: string; data: string }[] {
  return text
    .split(/\r?\n\r?\n/)
    .map((block) => {
      const fields = block.split(/\r?\n/).map((line) => /^([^:]*):? ?(.*)$/.exec(line) ?? ['', '', '']);
      const all = (field: string) => fields.filter(([, name]) => name === field).map(([, , value]) => value ?? '');
      return { name: [...all('event'), ...all('id').map((id) => `#${id}`)].join(' ') || 'message', data: all('data').join('\n') };
    })
    .filter((event) => event.data !== '');
}

interface Named {
  name?: string;
  /** As a JSON pointer. */
  at: string;
  value: Json;
}

/** The first of them, those in which something is found, and the others when they are asked for. */
function Trees({ values, words, open }: { values: Named[]; words: string; open: boolean }) {
  const [drawn, setDrawn] = useState(AT_ONCE);
  const draw = (one: Named, index: number) => <Tree key={index} {...one} words={words} open={open} />;
  const rest = values.slice(drawn);
  const found = words === '' ? [] : values.map((one, index) => ({ one, index })).filter(({ one, index }) => index >= drawn && holds(one, words));
  return (
    <>
      {values.slice(0, drawn).map(draw)}
      {rest.length > 0 && (
        <button class="quiet more" onClick={() => setDrawn(drawn + AT_ONCE)}>
          {t('and {0} more', number(rest.length))}
        </button>
      )}
      {found.slice(0, AT_ONCE).map(({ one, index }) => draw(one, index))}
    </>
  );
}

function holds({ name = '', value }: Named, words: string): boolean {
  return hitsIn(name, words) > 0 || hitsIn(value.text, words) > 0;
}

/** JSON, each object and list of which unfolds. */
function Tree({ value, name, at, words, open }: Named & { words: string; open: boolean }) {
  const label = name === undefined ? null : (
    <span class="key">
      <Marked text={name} words={words} />:{' '}
    </span>
  );
  const wrong = useContext(Wrong);
  const isWrong = wrong.has(at) && at !== '';
  const remark = isWrong && <span class="wrong-remark"> {t('a check failed here')}</span>;
  if (value.kind === 'leaf')
    return (
      <div class={isWrong ? 'leaf wrong' : 'leaf'}>
        {label}
        <span class={value.type}>
          <Marked text={value.text} words={words} />
        </span>
        {remark}
      </div>
    );
  const list = value.kind === 'list';
  const inside: Named[] = list
    ? value.items.map((one, index) => ({ name: String(index), at: below(at, String(index)), value: one }))
    : value.fields.map(([field, one]) => ({ name: field, at: below(at, field), value: one }));
  if (inside.length === 0)
    return (
      <div class="leaf">
        {label}
        {list ? '[]' : '{}'}
      </div>
    );
  const found = words !== '' && hitsIn(value.text, words) > 0;
  return (
    <details class={isWrong ? 'tree wrong' : 'tree'} open={open || found || holdsWrong(wrong, at)}>
      <summary>
        {label}
        <span class="dim">{list ? `[${inside.length}]` : `{${inside.length}}`}</span>
        {remark}
      </summary>
      <Trees values={inside} words={words} open={open} />
    </details>
  );
}

/** Markup with a line for each element. Only for reading: what is between elements moves. */
function indented(markup: string): string {
  let depth = 0;
  return markup
    .replace(/>\s*</g, '>\n<')
    .split('\n')
    .map((line) => {
      if (/^<\//.test(line)) depth = Math.max(0, depth - 1);
      const shown = '  '.repeat(depth) + line;
      if (/^<[^!?/][^>]*[^/]>$/.test(line) && !/<\/[^>]+>$/.test(line)) depth++;
      return shown;
    })
    .join('\n');
}

export function Copy({ label, text }: { label: string; text(): string }) {
  const [done, setDone] = useState(false);
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text());
    } catch {
      const field = document.createElement('textarea'); // where the browser trusts no page from a disk
      field.value = text();
      document.body.append(field);
      field.select();
      document.execCommand('copy');
      field.remove();
    }
    setDone(true);
  };
  return (
    <button class="quiet" onClick={copy}>
      {done ? t('copied') : label}
    </button>
  );
}
