import { plainSummary } from './plain';
import { effect, signal } from '@preact/signals';
import { useEffect, useRef } from 'preact/hooks';
import { Exchanges } from './exchanges/exchanges';
import { Help } from './help';
import { onKey, searchWanted } from './data/keys';
import { needsAttention } from './data/outcomes';
import { Tests } from './tests/tests';
import { TestView } from './test/test';
import { Viewer } from './attachments/viewer';
import { Earlier } from './runs/earlier';
import { earlierLink, exchangesLink, testLink, testsLink, route, summaryLink, workersLink } from './data/route';
import { isLost, run } from './data/loaded';
import { Summary } from './summary/summary';
import { Workers } from './runs/workers';
import { isWhole } from './data/types';
import type { RunData } from './data/types';
import { other, speak, t } from './words/texts';

const THEME = 'verbale-theme';
const theme = signal(remembered());

effect(() => {
  if (theme.value) document.documentElement.dataset['theme'] = theme.value;
});

export function App() {
  const data = run.value;
  if (data) return <Page data={data} />;
  return isLost.value ? <Lost /> : null;
}

/** A viewer of archives unpacks only the file that is opened: the index has the summary in it, for readers without scripts. */
function Lost() {
  return (
    <>
      <p class="lost" role="alert">
        <b>{t('The data of this page is missing')}.</b>{' '}
        {t('Beside this file was a folder data. Unpack or copy all of it, or write the page as one file:')}{' '}
        <code>verbale page --single-file</code>
      </p>
      <div class="plain" dangerouslySetInnerHTML={{ __html: plainSummary }} />
    </>
  );
}

function Page({ data }: { data: RunData }) {
  const { view, id } = route.value;
  useNavigation(view, id, titleOf(data));
  useKeysElsewhere(data, view);
  return (
    <>
      <header class="masthead">
        <a class="skip" href="#" onClick={toMain}>{t('Skip to the content')}</a>
        <a class="wordmark" href={summaryLink}>
          {data.logo && <img class="logo" src={data.logo} alt="" />}
          {data.title ?? 'Verbale'}
        </a>
        <span class="run-name">{data.projectPages === undefined ? data.name : <a href={data.projectPages}>{data.name}</a>}</span>
        <nav aria-label={t('Views')}>
          <a href={summaryLink} aria-current={view === 'summary' ? 'page' : undefined}>{t('Summary')}</a>
          <a href={testsLink({})} aria-current={view === 'tests' ? 'page' : view === 'test' ? 'true' : undefined}>{t('Tests')}</a>
          <a href={workersLink} aria-current={view === 'workers' ? 'page' : undefined}>{t('Workers')}</a>
          {data.earlier && (
            <a href={earlierLink} aria-current={view === 'earlier' ? 'page' : undefined}>{t('Earlier runs')}</a>
          )}
          {data.exchanges > 0 && (
            <a href={exchangesLink({})} aria-current={view === 'exchanges' ? 'page' : undefined}>{t('Exchanges')}</a>
          )}
        </nav>
        <button class="quiet language" lang={other()} onClick={() => speak(other())} title={other() === 'it' ? 'In italiano' : 'In English'}>
          {other()}
        </button>
        <button class="quiet theme" onClick={turn} title={t('Light or dark')}>
          ◐<span class="visually-hidden">{t('light or dark')}</span>
        </button>
      </header>
      {view === 'summary' && <Summary data={data} />}
      {view === 'tests' && <Tests data={data} />}
      {view === 'workers' && <Workers data={data} />}
      {view === 'earlier' && <Earlier data={data} />}
      {view === 'exchanges' && <Exchanges data={data} />}
      {view === 'test' && <TestView data={data} />}
      <Viewer />
      <Help />
    </>
  );
}

const TITLES = { tests: 'Tests', workers: 'Workers', exchanges: 'Exchanges', earlier: 'Earlier runs' } as const;

function titleOf(data: RunData): string {
  const { view, id } = route.value;
  const name = view === 'test' ? (id === 'run' ? t('Outside tests') : (data.rows.find((row) => row.id === id)?.name ?? id)) : view === 'summary' ? '' : t(TITLES[view]);
  return [name, data.name, data.title ?? 'Verbale'].filter(Boolean).join(' · ');
}

/** A view that was gone to is read out and has the focus; the first one leaves it where a page has it. */
function useNavigation(view: string, id: string, title: string): void {
  const first = useRef(true);
  useEffect(() => {
    document.title = title;
  }, [title]);
  useEffect(() => {
    if (first.current) first.current = false;
    else focusMain();
  }, [view, id]);
  useEffect(() => {
    const stops = [onKey('s', () => (location.hash = summaryLink)), onKey('t', () => (location.hash = testsLink({}))), onKey('e', unfold)];
    return () => stops.forEach((stop) => stop());
  }, []);
}

/** Keys that a test and the list have their own meaning for, elsewhere. */
function useKeysElsewhere(data: RunData, view: string): void {
  useEffect(() => {
    const go = (row: { id: string } | undefined) => row && (location.hash = testLink(row.id));
    // The list comes after the first view: until then the reasons know one.
    const failure = () => data.rows.find((row) => needsAttention(row.outcome) && !row.superseded) ?? data.reasons.find(isWhole)?.first[0];
    const stops = view === 'test' ? [] : [onKey('n', () => go(data.rows[0])), onKey('f', () => go(failure()))];
    if (view !== 'tests') stops.push(onKey('/', search));
    return () => stops.forEach((stop) => stop());
  }, [data, view]);
}

function search(): void {
  searchWanted.value = true;
  location.hash = testsLink({});
}

/** All that is folded in the view; or, where nothing is, folds it. */
function unfold(): void {
  const all = [...document.querySelectorAll<HTMLDetailsElement>('main details')];
  const isFolded = all.some((one) => !one.open);
  for (const one of all) one.open = isFolded;
}

function focusMain(): void {
  const main = document.querySelector('main');
  if (!main) return;
  main.tabIndex = -1;
  main.focus({ preventScroll: true });
}

function toMain(event: Event): void {
  event.preventDefault();
  focusMain();
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
