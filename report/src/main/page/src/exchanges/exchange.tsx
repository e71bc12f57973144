// A request and its response: one line, and opened both sides beside each other, to be read, copied, compared and sent again.
import { useContext, useMemo, useState } from 'preact/hooks';
import { curlForBash, curlForPowerShell, javaCode } from './commands';
import { BodyView, Copy } from './body';
import { Comparison, Open } from './comparison';
import { isUnexpected } from './endpoints';
import { Mark } from '../marks/mark';
import { statusOf } from '../marks/status';
import { bytes, count, durationText } from '../words/text';
import { sentRequest } from '../data/request';
import { exchangesLink } from '../data/route';
import { originsOf } from './origins';
import { exchangesIn, logsIn } from '../data/inside';
import { ofRow, testFiles } from '../data/loaded';
import { loggedOf } from './logged';
import { retryOf } from './retried';
import type { Exchange, Message } from '../data/types';
import { Wrong, wrongIn } from './wrong';
import { t } from '../words/texts';

export function ExchangeLine({ exchange, before }: { exchange: Exchange; before?: Exchange | undefined }) {
  const retried = retryOf(exchange, before);
  const [isOpen, setOpen] = useState(false);
  const failed = exchange.checks?.filter(([outcome]) => outcome !== 'passed').length ?? 0;
  const open = useContext(Open);
  const status = exchange.status ?? 0;
  const response = exchange.failed !== undefined ? 'no response' : status >= 500 ? '5xx' : status >= 400 ? '4xx' : undefined;
  const bad = isUnexpected(response, failed, open?.data.rows[open.position]?.outcome);
  return (
    <div class={`step exchange ${bad ? 'bad' : ''}`}>
      <details onToggle={(e) => setOpen(e.currentTarget.open)}>
        <summary>
          <b class="method">{exchange.method}</b> <span class="where">{short(exchange.url)}</span>
          <span class="status">{statusOf(exchange)}</span>
          {exchange.duration !== undefined && <span class="duration">{durationText(exchange.duration)}</span>}
          {exchange.response?.body && exchange.response.body.size >= 0 && <span class="duration">{bytes(exchange.response.body.size)}</span>}
          {exchange.checks && (
            <span class={failed > 0 ? 'checks failed' : 'checks dim'}>
              {checksText(failed, exchange.checks.length)}
            </span>
          )}
          {retried && <span class="dim">{t('again, after {0}', statusOf(retried))}</span>}
          {exchange.thread && <span class="thread">{exchange.thread}</span>}
          {exchange.failed && <span class="why">{exchange.failed}</span>}
        </summary>
        {isOpen && <ExchangeDetail exchange={exchange} />}
      </details>
    </div>
  );
}

function checksText(failed: number, all: number): string {
  if (failed === 0) return count(all, 'check');
  return failed === all ? t('{0} failed', count(all, 'check')) : t('{0} of {1} checks failed', failed, all);
}

/** Which of its values the test took out of an answer before. */
function Origins({ exchange }: { exchange: Exchange }) {
  const open = useContext(Open);
  const test = open && ofRow(testFiles, open.data, open.position);
  const origins = useMemo(() => (test ? originsOf(exchange, exchangesIn(test.entries)) : []), [test, exchange]);
  if (origins.length === 0) return null;
  return (
    <p class="dim origins">
      {origins.map(({ value, request, path }) => (
        <span key={value}>
          <span class="code">{value.length > 40 ? value.slice(0, 39) + '…' : value}</span> {t('came from {0}, {1}', request, path)}{' '}
        </span>
      ))}
    </p>
  );
}

function LoggedLines({ exchange }: { exchange: Exchange }) {
  const open = useContext(Open);
  const test = open && ofRow(testFiles, open.data, open.position);
  const logged = useMemo(() => (test ? loggedOf(logsIn(test.entries), exchange, open.data.started) : undefined), [test, exchange]);
  if (!logged || logged.lines.length === 0) return null;
  return (
    <div class="logged-lines">
      <p class="dim">{logged.by === 'trace' ? t('logged with this trace') : t('logged meanwhile')}</p>
      <pre>{logged.lines.map((log) => `${log.logger ? log.logger + '  ' : ''}${log.text}`).join('\n')}</pre>
    </div>
  );
}

/** What it is about, whatever server has it and whatever is asked. */
function pathOf(url: string): string {
  return url.replace(/^[a-z][a-z0-9+.-]*:\/\/[^/?#]*/i, '').replace(/[?#].*$/, '') || '/';
}

function ExchangeDetail({ exchange }: { exchange: Exchange }) {
  const open = useContext(Open);
  const [comparing, setComparing] = useState(false);
  const facts = [
    exchange.client,
    exchange.protocol,
    ...Object.entries(exchange.timings).map(([part, micros]) => `${part} ${durationText(micros)}`),
    ...Object.entries(exchange.attributes).map(([name, value]) => `${name}: ${value}`),
  ].filter(Boolean);
  return (
    <div class="detail">
      <p class="whole-url code">{exchange.url}</p>
      <p class="dim">{facts.join(' · ')}</p>
      {exchange.trace && (
        <p class="dim trace">
          {t('trace')}{' '}
          {exchange.trace.address ? (
            <a class="code" href={exchange.trace.address} target="_blank" rel="noopener noreferrer">
              {exchange.trace.id}
            </a>
          ) : (
            <span class="code">{exchange.trace.id}</span>
          )}
        </p>
      )}
      <Origins exchange={exchange} />
      <LoggedLines exchange={exchange} />
      {exchange.checks && (
        <ul class="exchange-checks">
          {exchange.checks.map(([outcome, name], index) => (
            <li key={index}>
              <Mark outcome={outcome} /> {name}
            </li>
          ))}
        </ul>
      )}
      {open && (
        <p class="dim">
          <a href={exchangesLink({ find: pathOf(exchange.url), order: 'time' })}>{t('All requests of {0}, whoever made them', pathOf(exchange.url))}</a>
        </p>
      )}
      <p class="copy-commands">
        {typeof sentRequest(exchange) !== 'string' && (
          <>
            <Copy label={t('copy as curl')} text={() => curlForBash(exchange)} />
            <Copy label={t('for PowerShell')} text={() => curlForPowerShell(exchange)} />
            <Copy label={t('as Java')} text={() => javaCode(exchange)} />
          </>
        )}
        {open && (
          <button class="quiet compare" aria-pressed={comparing} onClick={() => setComparing(!comparing)}>
            {t('compare with another')}
          </button>
        )}
      </p>
      {open && comparing && <Comparison exchange={exchange} data={open.data} position={open.position} />}
      <div class="sides">
        <Side title={t('Request')} message={exchange.request} query={query(exchange.url)} />
        <Wrong.Provider value={wrongIn(exchange.checks)}>
          {exchange.response && <Side title={t('Response')} message={exchange.response} query={[]} />}
        </Wrong.Provider>
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
      <Table title={t('Query')} rows={query} />
      <Table title={t('Headers')} rows={message.headers} />
      <Table title={t('Cookies')} rows={cookies.filter(([, value]) => value)} />
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

export function query(url: string): [string, string][] {
  const at = url.indexOf('?');
  return at < 0 ? [] : [...new URLSearchParams(url.slice(at + 1).replace(/#.*/, ''))];
}

/** Without the scheme and the host, which are the same for nearly all. */
export function short(url: string): string {
  return url.replace(/^https?:\/\/[^/]+(?=\/)/, '');
}
