import { effect, signal } from '@preact/signals';
import { Exchanges } from './exchanges';
import { Tests } from './tests';
import { TestView } from './test';
import { Viewer } from './viewer';
import { exchangesLink, testsLink, route, run, summaryLink } from './store';
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
        <h1>The data of this page is missing</h1>
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
          <a href={testsLink({})} aria-current={view === 'tests' ? 'page' : view === 'test' ? 'true' : undefined}>
            Tests
          </a>
          {data.exchanges > 0 && (
            <a href={exchangesLink({})} aria-current={view === 'exchanges' ? 'page' : undefined}>
              Exchanges
            </a>
          )}
        </nav>
        <button class="quiet theme" onClick={turn} title="Light or dark">
          ◐<span class="visually-hidden"> light or dark</span>
        </button>
      </header>
      {view === 'summary' && <Summary data={data} />}
      {view === 'tests' && <Tests data={data} />}
      {view === 'exchanges' && <Exchanges data={data} />}
      {view === 'test' && <TestView data={data} />}
      <Viewer />
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
