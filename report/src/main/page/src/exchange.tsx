// A request and its answer: one line, and unfolded both sides beside each other, to be read, copied and sent again.
import { useState } from 'preact/hooks';
import { curlForBash, curlForPowerShell, javaCode } from './again';
import { bytes, duration } from './text';
import type { Body, Exchange, Message } from './types';

const PICTURES = ['image/png', 'image/jpeg', 'image/gif', 'image/webp'];
const LONGEST_TREE = 200_000;

export function ExchangeLine({ exchange }: { exchange: Exchange }) {
  const [open, setOpen] = useState(false);
  const bad = exchange.failed !== undefined || (exchange.status ?? 0) >= 400;
  return (
    <div class={`step exchange ${bad ? 'bad' : ''}`}>
      <details onToggle={(e) => setOpen(e.currentTarget.open)}>
        <summary>
          <b class="method">{exchange.method}</b> <span class="where">{short(exchange.url)}</span>
          <span class="status">{exchange.failed && !exchange.status ? 'no answer' : exchange.status}</span>
          <span class="took">{duration(exchange.took)}</span>
          {exchange.response?.body && exchange.response.body.size >= 0 && <span class="took">{bytes(exchange.response.body.size)}</span>}
          {exchange.thread && <span class="thread">{exchange.thread}</span>}
          {exchange.failed && <span class="why">{exchange.failed}</span>}
        </summary>
        {open && <Unfolded exchange={exchange} />}
      </details>
    </div>
  );
}

function Unfolded({ exchange }: { exchange: Exchange }) {
  const told = [
    exchange.client,
    exchange.protocol,
    ...Object.entries(exchange.timings).map(([part, micros]) => `${part} ${duration(micros)}`),
    ...Object.entries(exchange.attributes).map(([name, value]) => `${name}: ${value}`),
  ].filter(Boolean);
  return (
    <div class="unfolded">
      <p class="whole-address code">{exchange.url}</p>
      <p class="dim">{told.join(' · ')}</p>
      <p class="again">
        <Copy label="copy as curl" text={() => curlForBash(exchange)} />
        <Copy label="for PowerShell" text={() => curlForPowerShell(exchange)} />
        <Copy label="as Java" text={() => javaCode(exchange)} />
      </p>
      <div class="sides">
        <Side title="Request" message={exchange.request} query={query(exchange.url)} />
        {exchange.response && <Side title="Response" message={exchange.response} query={[]} />}
      </div>
    </div>
  );
}

function Side({ title, message, query }: { title: string; message: Message; query: [string, string][] }) {
  const cookies = message.headers
    .filter(([name]) => /^(set-)?cookie$/i.test(name))
    .flatMap(([, value]) => value.split(/;\s*/))
    .map((pair): [string, string] => [pair.split('=')[0] ?? '', pair.split('=').slice(1).join('=')]);
  return (
    <section>
      <h3>{title}</h3>
      <Table title="Query" rows={query} />
      <Table title="Headers" rows={message.headers} />
      <Table title="Cookies" rows={cookies.filter(([, value]) => value)} />
      {message.body && <BodyView body={message.body} />}
    </section>
  );
}

function Table({ title, rows }: { title: string; rows: [string, string][] }) {
  if (rows.length === 0) return null;
  return (
    <table>
      <caption>{title}</caption>
      <tbody>
        {rows.map(([name, value], index) => (
          <tr key={index}>
            <th scope="row">{name}</th>
            <td>{value}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function BodyView({ body }: { body: Body }) {
  const [raw, setRaw] = useState(false);
  const type = body.mediaType.replace(/;.*/, '').trim();
  const json = body.text !== undefined && !body.cut && body.text.length < LONGEST_TREE ? parsed(body.text) : undefined;
  const size = body.size < 0 ? '' : bytes(body.size) + (body.decoded ? `, ${bytes(body.decoded)} unpacked` : '');
  return (
    <div class="body">
      <p class="dim">
        {body.mediaType || 'no media type'} {size}
        {json !== undefined && (
          <button class="quiet" aria-pressed={raw} onClick={() => setRaw(!raw)}>
            {raw ? 'as a tree' : 'as it came'}
          </button>
        )}
        {body.text !== undefined && <Copy label="copy" text={() => body.text!} />}
        {body.href && (
          <a href={body.href} target="_blank" rel="noopener">
            the file
          </a>
        )}
      </p>
      {body.cut && <p class="dim">Only the beginning was kept.</p>}
      {PICTURES.includes(type) && body.href && <img src={body.href} alt="The body" />}
      {body.text !== undefined &&
        (json !== undefined && !raw ? <Tree value={json} /> : <pre>{/xml|html/.test(type) && !raw ? indented(body.text) : body.text}</pre>)}
    </div>
  );
}

function parsed(text: string): unknown {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null ? value : undefined;
  } catch {
    return undefined;
  }
}

/** JSON, each object and list of which folds. */
function Tree({ value, name }: { value: unknown; name?: string }) {
  const label = name === undefined ? null : <span class="key">{name}: </span>;
  if (typeof value !== 'object' || value === null)
    return (
      <div class="leaf">
        {label}
        <span class={typeof value}>{JSON.stringify(value)}</span>
      </div>
    );
  const list = Array.isArray(value);
  const inside = Object.entries(value);
  if (inside.length === 0)
    return (
      <div class="leaf">
        {label}
        {list ? '[]' : '{}'}
      </div>
    );
  return (
    <details class="tree" open>
      <summary>
        {label}
        <span class="dim">{list ? `[${inside.length}]` : `{${inside.length}}`}</span>
      </summary>
      {inside.map(([key, one]) => (
        <Tree key={key} name={key} value={one} />
      ))}
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
      {done ? 'copied' : label}
    </button>
  );
}

function query(url: string): [string, string][] {
  const at = url.indexOf('?');
  return at < 0 ? [] : [...new URLSearchParams(url.slice(at + 1).replace(/#.*/, ''))];
}

/** Without the scheme and the host, which are the same for nearly all. */
export function short(url: string): string {
  return url.replace(/^https?:\/\/[^/]+(?=\/)/, '');
}
