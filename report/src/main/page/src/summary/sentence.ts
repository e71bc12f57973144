// What a run came to, in a sentence. In English as the terminal and every export say it; in Italian by the same rules.
import { outcomeText } from '../data/outcomes';
import { language } from '../words/texts';
import { whole } from '../words/text';
import type { Outcome, RunData } from '../data/types';

export function sentenceOf(data: RunData): string {
  return language.value === 'it' ? italian(data) : data.sentence;
}

/** What a run lacks; the names of JVMs are the same in any language. */
export function incompleteOf(data: RunData): string | undefined {
  if (language.value !== 'it' || !data.incomplete) return data.incomplete;
  const open = data.workers.filter((worker) => !worker.ended).map((worker) => worker.name);
  const missing = data.workers.reduce((sum, worker) => sum + worker.missing, 0);
  const parts = [
    missing > 0 && (missing === 1 ? '1 evento non è stato registrato' : `${whole(missing)} eventi non sono stati registrati`),
    open.length > 0 && `${open.length === 1 ? 'il journal di' : 'i journal di'} ${open.slice(0, 3).join(', ')}${open.length > 3 ? ` e altri ${open.length - 3}` : ''} non è stato chiuso, come quando una JVM viene interrotta o lavora ancora`,
  ].filter(Boolean);
  return `L’esecuzione non è completa: ${parts.join('; ')}.`;
}

const PLURALS: Record<string, [string, string]> = {
  passed: ['passato', 'passati'],
  flaky: ['instabile', 'instabili'],
  failed: ['fallito', 'falliti'],
  errored: ['in errore', 'in errore'],
  unfinished: ['incompiuto', 'incompiuti'],
  skipped: ['saltato', 'saltati'],
  aborted: ['interrotto', 'interrotti'],
  'expected-failure': ['fallimento atteso', 'fallimenti attesi'],
};

function italian(data: RunData): string {
  const { counts } = data;
  const of = (outcome: string) => counts[outcome] ?? 0;
  const all = Object.values(counts).reduce((sum, one) => sum + one, 0);
  const attention = of('failed') + of('errored') + of('unfinished');
  const sentences: string[] = [];
  if (all === 0) sentences.push('Nessun test è stato registrato.');
  else if (attention > 0) sentences.push(`${whole(attention)} di ${tests(all)} non ${attention === 1 ? 'è passato' : 'sono passati'}: ${list(counts, ['failed', 'errored', 'unfinished'])}${why(data.reasons.length)}.`);
  else if (of('passed') === all) sentences.push(all === 1 ? 'L’unico test è passato.' : `Tutti i ${whole(all)} test sono passati.`);
  else sentences.push(`${whole(of('passed'))} di ${tests(all)} ${of('passed') === 1 ? 'è passato' : 'sono passati'}, e nessuno è fallito${aside(list(counts, ['skipped', 'aborted', 'expected-failure']))}.`);
  if (data.allFlaky > 0) sentences.push(data.allFlaky === 1 ? '1 test è instabile: è passato a un tentativo successivo.' : `${whole(data.allFlaky)} test sono instabili: sono passati a un tentativo successivo.`);
  if (data.broken.length > 2) {
    const lost = data.broken.reduce((sum, [, notRun]) => sum + notRun, 0);
    sentences.push(`${whole(data.broken.length)} classi si sono rotte fuori dai loro test${lost > 0 ? `; ${tests(lost)} non ${lost === 1 ? 'è stato eseguito' : 'sono stati eseguiti'}` : ''}.`);
  } else for (const [name, notRun] of data.broken) sentences.push(`"${name}" si è rotta fuori dai suoi test${notRun > 0 ? `; ${tests(notRun)} non ${notRun === 1 ? 'è stato eseguito' : 'sono stati eseguiti'}` : ''}.`);
  if (data.outside > 0) sentences.push(data.outside === 1 ? '1 passo fuori dai test è fallito.' : `${whole(data.outside)} passi fuori dai test sono falliti.`);
  const sentence = sentences.join(' ');
  return data.progress ? `Finora ${sentence[0]!.toLowerCase()}${sentence.slice(1)}` : sentence;
}

function tests(number: number): string {
  return `${whole(number)} test`;
}

/** An outcome as what so many came to: only Italian makes a difference. */
export function outcomeOf(number: number, outcome: Outcome): string {
  if (language.value !== 'it' || !(outcome in PLURALS)) return outcomeText(outcome);
  return PLURALS[outcome]![number === 1 ? 0 : 1];
}

function list(counts: Record<string, number>, outcomes: string[]): string {
  return outcomes
    .filter((outcome) => (counts[outcome] ?? 0) > 0)
    .map((outcome) => `${whole(counts[outcome]!)} ${PLURALS[outcome]![counts[outcome] === 1 ? 0 : 1]}`)
    .join(', ');
}

function aside(text: string): string {
  return text ? ` (${text})` : '';
}

function why(reasons: number): string {
  if (reasons === 0) return '';
  return reasons === 1 ? ', per un solo motivo' : `, per ${whole(reasons)} motivi`;
}
