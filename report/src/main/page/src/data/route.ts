// Which view is open: the route behind the hash, and the links that lead to it.
import { signal } from '@preact/signals';

export interface Route {
  view: 'summary' | 'tests' | 'workers' | 'exchanges' | 'earlier' | 'test';
  /** Which test: a row's id, or `run` for what happened outside tests. */
  id: string;
  params: URLSearchParams;
}

export const route = signal<Route>(parse(location.hash));
addEventListener('hashchange', () => {
  const before = route.value;
  route.value = parse(location.hash);
  if (before.view !== route.value.view || before.id !== route.value.id) scrollTo(0, 0);
});

function parse(hash: string): Route {
  const [path = '', query = ''] = hash.replace(/^#\/?/, '').split('?');
  const [view, ...rest] = path.split('/');
  const params = new URLSearchParams(query);
  if (view === 'tests' || view === 'workers' || view === 'exchanges' || view === 'earlier') return { view, id: '', params };
  if (view === 'test') return { view, id: decoded(rest.join('/')), params };
  return { view: 'summary', id: '', params };
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

export const summaryLink = '#/';
export const workersLink = '#/workers';
export const earlierLink = '#/earlier';

export function testLink(id: string): string {
  return '#/test/' + encodeURIComponent(id);
}

export function testsLink(params: Record<string, string>): string {
  const query = new URLSearchParams(Object.entries(params).filter(([, value]) => value)).toString();
  return '#/tests' + (query ? '?' + query : '');
}

export function exchangesLink(params: Record<string, string>): string {
  return testsLink(params).replace('#/tests', '#/exchanges');
}
