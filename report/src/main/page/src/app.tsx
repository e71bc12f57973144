import { effect, signal } from '@preact/signals';
import { Exchanges } from './exchanges';
import { Ledger } from './ledger';
import { MinutesView } from './minutes';
import { Reader } from './reader';
import { exchangesLink, ledgerLink, route, run, summaryLink } from './store';
import { Summary } from './summary';

const THEME = 'verbale-theme';
const theme = signal(remembered());

effect(() => {
  if (theme.value) document.documentElement.dataset['theme'] = theme.value;
});

export function App() {
  const data = run.value;
  if (!data)
    return (
      <main class="lost">
        <h1>The minutes are not here</h1>
        <p>
          This page needs the folder <code>data</code> that was written beside it. Copy or unpack the folder as a whole, or
          write the page again with <code>verbale page</code>.
        </p>
      </main>
    );
  const { view } = route.value;
  document.title = `${data.name} · Verbale`;
  return (
    <>
      <header class="masthead">
        <a class="wordmark" href={summaryLink}>
          Verbale
        </a>
        <span class="run-name">{data.name}</span>
        <nav aria-label="Views">
          <a href={summaryLink} aria-current={view === 'summary' ? 'page' : undefined}>
            Summary
          </a>
          <a href={ledgerLink({})} aria-current={view === 'ledger' ? 'page' : undefined}>
            Ledger
          </a>
          {data.exchanges > 0 && (
            <a href={exchangesLink({})} aria-current={view === 'exchanges' ? 'page' : undefined}>
              Exchanges
            </a>
          )}
          {view === 'minutes' && <a aria-current="page">Minutes</a>}
        </nav>
        <button class="quiet theme" onClick={turn} title="Light or dark">
          ◐<span class="unseen"> light or dark</span>
        </button>
      </header>
      {view === 'summary' && <Summary data={data} />}
      {view === 'ledger' && <Ledger data={data} />}
      {view === 'exchanges' && <Exchanges data={data} />}
      {view === 'minutes' && <MinutesView data={data} />}
      <Reader />
    </>
  );
}

function turn() {
  const dark = theme.value ? theme.value === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  theme.value = dark ? 'light' : 'dark';
  try {
    localStorage.setItem(THEME, theme.value);
  } catch {
    // then it is forgotten when the page closes
  }
}

function remembered(): string {
  try {
    return localStorage.getItem(THEME) ?? '';
  } catch {
    return '';
  }
}
