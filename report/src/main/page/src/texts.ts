// All texts of the page, each in English with its Italian. {0}, {1} are what is put in. No text stands anywhere else, but the run's
// sentence, which is made in sentence.ts: t() takes only what is in here. What was recorded stays as it is, in whatever language.
import { effect, signal } from '@preact/signals';

export type Language = 'en' | 'it';

const ITALIAN = {
  // Views and the way around
  Summary: 'Riepilogo',
  Tests: 'Test',
  Workers: 'Worker',
  'Earlier runs': 'Esecuzioni precedenti',
  Exchanges: 'Scambi',
  Views: 'Viste',
  'Skip to the content': 'Vai al contenuto',
  'light or dark': 'chiaro o scuro',
  'Light or dark': 'Chiaro o scuro',
  Keys: 'Tasti',
  Close: 'Chiudi',
  'these keys': 'questi tasti',
  'the summary, the tests': 'il riepilogo, i test',
  'search in the tests': 'cerca nei test',
  'next and previous test': 'test successivo e precedente',
  'next failure': 'fallimento successivo',
  'unfold everything, and fold it': 'apri tutto, e richiudi',
  'step through attachments, and close them': 'scorri gli allegati, e chiudili',
  'an image larger, smaller, fitted': 'immagine più grande, più piccola, adattata',
  'play a video, and pause it': 'avvia un video, e fermalo',
  '‹ Previous': '‹ Precedente',
  'Next ›': 'Successivo ›',
  'Next failure »': 'Fallimento successivo »',
  '{0} (key {1})': '{0} (tasto {1})',
  Search: 'Cerca',
  'Search  ( / )': 'Cerca  ( / )',
  Order: 'Ordine',
  'Group by': 'Raggruppa per',
  Outcomes: 'Esiti',
  copy: 'copia',
  copied: 'copiato',
  download: 'scarica',
  and: 'e',
  of: 'di',
  in: 'in',
  at: 'in',
  all: 'tutti',
  none: 'nessuna',
  None: 'Nessuna',
  'and {0}': 'e {0}',
  'and {0} more': 'e altri {0}',
  'at {0}': 'in {0}',
  'in {0}': 'in {0}',
  'on {0}': 'su {0}',
  '{0} of {1}': '{0} di {1}',
  '{0} in {1}': '{0} in {1}',
  '{0} at {1}': '{0} a {1}',
  '{0} to {1}': 'da {0} a {1}',
  '0 to {0}': 'da 0 a {0}',
  'from {0} to {1}': 'da {0} a {1}',
  'line {0}': 'riga {0}',
  '{0}, line {1}': '{0}, riga {1}',

  // Outcomes and other words of the trade
  passed: 'passato',
  failed: 'fallito',
  errored: 'in errore',
  unfinished: 'incompiuto',
  skipped: 'saltato',
  aborted: 'interrotto',
  'expected failure': 'fallimento atteso',
  flaky: 'instabile',
  'not run': 'non eseguito',
  'not there': 'assente',
  'not finished': 'non finito',
  class: 'classe',
  package: 'package',
  outcome: 'esito',
  reason: 'motivo',
  tag: 'etichetta',
  owner: 'responsabile',
  severity: 'gravità',
  worker: 'worker',
  nothing: 'niente',
  'no reason': 'nessun motivo',
  'no tag': 'nessuna etichetta',
  'no owner': 'nessun responsabile',
  'no severity': 'nessuna gravità',
  'no package': 'nessun package',
  failing: 'non passati',
  new: 'nuovo',
  news: 'novità',
  time: 'tempo',
  longest: 'durata',
  name: 'nome',
  status: 'stato',
  size: 'dimensione',
  path: 'percorso',
  test: 'test',
  tests: 'test',
  run: 'esecuzione',
  row: 'riga',
  step: 'passo',
  check: 'verifica',
  'set-up': 'preparazione',
  'tear-down': 'chiusura',
  ids: 'id',
  CSV: 'CSV',
  'Maven command': 'comando Maven',
  '4xx': '4xx',
  '5xx': '5xx',
  'no response': 'nessuna risposta',
  answered: 'risposto',
  open: 'aperta',

  // Summary
  ', on {0} workers': ', su {0} worker',
  'How far the run is': 'A che punto è l’esecuzione',
  '{0} of about {1}': '{0} su circa {1}',
  '{0} after {1}; this page follows the run.': '{0} dopo {1}; questa pagina segue l’esecuzione.',
  'and {0} more are running': 'e altri {0} sono in corso',
  'None of them is new since {0}.': 'Nessuno è nuovo dal {0}.',
  'All of them are new': 'Sono tutti nuovi',
  '1 of them is new': '1 è nuovo',
  '{0} of them are new': '{0} sono nuovi',
  'since {0}, compared with {1}.': 'dal {0}, rispetto a {1}.',
  others: 'altri',
  ' is affected.': ' ne risente.',
  ' are affected.': ' ne risentono.',
  '{0} in time; tall marks did not pass': '{0} nel tempo; i segni alti non sono passati',
  ', half tall ones were run again': ', quelli a metà sono stati ripetuti',
  'When tests began, over {0}: in {1} of {2} moments one did not pass': 'Quando sono iniziati i test, in {0}: in {1} momenti su {2} uno non è passato',
  ', run again later': ', ripetuto più tardi',
  'none of which failed': 'di cui nessuno fallito',
  '{0} of which did not pass, as {1}': 'di cui {0} non passati, come {1}',
  Reasons: 'Motivi',
  'Nothing failed.': 'Niente è fallito.',
  'What did not pass has no failure to compare.': 'Ciò che non è passato non ha un errore da confrontare.',
  'since {0}, in {1}': 'dal {0}, in {1}',
  'The page in {0}': 'La pagina in {0}',
  Flaky: 'Instabili',
  Slowest: 'I più lenti',
  'How long tests were': 'Quanto sono durati i test',
  'under 1 ms': 'sotto 1 ms',
  'to 10 ms': 'fino a 10 ms',
  'to 100 ms': 'fino a 100 ms',
  'to 1 s': 'fino a 1 s',
  'to 10 s': 'fino a 10 s',
  'to 1 min': 'fino a 1 min',
  longer: 'oltre',
  'The last runs': 'Le ultime esecuzioni',
  'red did not pass': 'in rosso i non passati',
  Facts: 'Fatti',
  'Overhead of recording: {0} % of the time of the tests': 'Costo della registrazione: {0} % del tempo dei test',
  'What happened outside tests': 'Che cosa è successo fuori dai test',
  '{0} in recording or reading this run': '{0} nel registrare o leggere questa esecuzione',
  'By {0}': 'Per {0}',
  'passed of all': 'passati su tutti',
  '{0} of {1} passed or were not run': '{0} di {1} passati o non eseguiti',
  '{0} flaky': '{0} instabili',

  // Tests
  'Search names, classes, tags, data, messages, and what was recorded of failures':
    'Cerca in nomi, classi, etichette, dati, messaggi, e in ciò che è stato registrato dei fallimenti',
  'Nothing here matches. Take a filter away, or search for less.': 'Niente corrisponde. Togli un filtro, o cerca meno parole.',
  'Remove the filter {0}: {1}': 'Togli il filtro {0}: {1}',
  ', and {0} that broke': ', e {0}',
  '{0} of {1} did not pass': '{0} di {1} non passati',
  'Flaky: passed on attempt {0}.': 'Instabile: passato al tentativo {0}.',
  'Attempt {0} of {1}.': 'Tentativo {0} di {1}.',
  'The tests are loading.': 'I test si stanno caricando.',
  'The list of tests is not whole': 'L’elenco dei test non è completo',
  'Files in data/rows are missing beside this page. Copy or unpack the folder as a whole, or write the page again:':
    'Mancano dei file in data/rows accanto a questa pagina. Copia o estrai la cartella intera, o scrivi di nuovo la pagina:',

  // A test
  'Outside tests': 'Fuori dai test',
  'outside tests': 'fuori dai test',
  'No such test in this run': 'Questo test non c’è in questa esecuzione',
  'after {0}, started {1}': 'dopo {0}, iniziato {1}',
  ', written in': ', scritto in',
  about: 'descrizione',
  links: 'collegamenti',
  Attempt: 'Tentativo',
  '{0} attempts.': '{0} tentativi.',
  Reason: 'Motivo',
  ', which': ', che',
  too: 'anch’essi',
  '{0} of the last {1} runs failed': '{0} delle ultime {1} esecuzioni sono fallite',
  'new: it failed in none of {0} earlier runs': 'nuovo: non è fallito in nessuna di {0} esecuzioni precedenti',
  'new: it passed the last time; {0}': 'nuovo: l’ultima volta è passato; {0}',
  'Earlier runs, the oldest first: {0}': 'Esecuzioni precedenti, dalla più vecchia: {0}',
  'Set-up and tear-down of classes, and lines from threads that belonged to no test.':
    'Preparazione e chiusura delle classi, e righe di thread che non erano di nessun test.',
  'Nothing was recorded in between.': 'Nel mezzo non è stato registrato niente.',
  'What happened in tests that passed was left out of this page; the run has it.':
    'Ciò che è successo nei test passati non è in questa pagina; è nella cartella dell’esecuzione.',
  'The file that holds this test is missing beside the page. Copy or unpack its folder as a whole, or write it again.':
    'Il file di questo test manca accanto alla pagina. Copia o estrai la cartella intera, o scrivila di nuovo.',
  'The address of this line': 'L’indirizzo di questa riga',
  'Choose a line, or play': 'Scegli una riga, o avvia',
  'shows this moment in the video': 'mostra questo momento nel video',
  'was to be attached later and never came': 'doveva essere allegato più tardi e non è mai arrivato',
  '{0} % of the time of the steps': '{0} % del tempo dei passi',
  'longer than {0}': 'più di {0}',
  'is of a later version of Verbale': 'è di una versione successiva di Verbale',
  '{0} cannot be read as an HTTP archive:': '{0} non si può leggere come archivio HTTP:',
  'and {0} more in the file': 'e altri {0} nel file',
  'One of {0} of data': 'Una di {0} di dati',
  'all of which passed': 'tutte passate',
  '{0} of which did not pass': '{0} delle quali non passate',
  'Search in the rows': 'Cerca nelle righe',
  'failed first': 'primo errore',
  'Not shown in the table: {0}': 'Non mostrati nella tabella: {0}',
  Console: 'Console',
  Network: 'Rete',

  // A failure
  Failure: 'Fallimento',
  'Stack trace': 'Stack trace',
  '{0} frames of libraries': '{0} frame di librerie',
  expected: 'atteso',
  actual: 'effettivo',
  'Expected and actual, whole': 'Atteso ed effettivo, per intero',
  '{0} the same': '{0} uguali',
  'Nearest elements': 'Elementi più vicini',
  'The page had nothing like': 'La pagina non aveva niente come',
  'The page had no': 'La pagina non aveva',
  '; nearest to it:': '; i più vicini:',
  'is called {0}': 'si chiama {0}',
  'has such a class': 'ha una classe così',
  'says nearly the same': 'dice quasi lo stesso',
  'is named after what the test does': 'ha il nome di ciò che fa il test',
  Source: 'Sorgente',
  'Copy as text': 'Copia come testo',
  'The test, its steps, the failure, console, exchanges, environment': 'Il test, i suoi passi, l’errore, console, scambi, ambiente',

  // A test beside another
  'Compare with': 'Confronta con',
  'Compared with': 'Confrontato con',
  'attempt {0}': 'tentativo {0}',
  'this run': 'questa esecuzione',
  '{0} {1} after {2}': '{0} {1} dopo {2}',
  'Neither has a step': 'Nessuno dei due ha un passo',
  '{0} went the same': '{0} sono andati allo stesso modo',
  'The first step that went differently: “{0}” is only in {1}': 'Il primo passo andato diversamente: “{0}” è solo in {1}',
  'The first step that went differently: “{0}” {1} in {2}, {3} in {4}': 'Il primo passo andato diversamente: “{0}” {1} in {2}, {3} in {4}',
  'The page at last in {0}': 'La pagina alla fine in {0}',
  'How much of {0} is seen, from the left': 'Quanto si vede di {0}, da sinistra',

  // Exchanges
  Endpoint: 'Endpoint',
  count: 'numero',
  mean: 'media',
  times: 'tempi',
  bytes: 'byte',
  'failed checks': 'verifiche fallite',
  '{0} received': '{0} ricevuti',
  Host: 'Host',
  'Search URLs, methods, states and tests': 'Cerca in URL, metodi, stati e test',
  ', the first {0} below': ', qui sotto i primi {0}',
  'Only the first {0} are shown.': 'Si mostrano solo i primi {0}.',
  'A file that holds them is missing beside the page. Copy or unpack its folder as a whole.':
    'Manca un file accanto alla pagina. Copia o estrai la cartella intera.',
  '{0} failed': '{0} fallite',
  '{0} of {1} checks failed': '{0} di {1} verifiche fallite',
  trace: 'traccia',
  'copy as curl': 'copia come curl',
  'for PowerShell': 'per PowerShell',
  'as Java': 'come Java',
  'compare with another': 'confronta con un altro',
  Request: 'Richiesta',
  Response: 'Risposta',
  Query: 'Query',
  Headers: 'Intestazioni',
  Cookies: 'Cookie',
  Comparison: 'Confronto',
  'There is no other exchange of this request.': 'Non c’è un altro scambio di questa richiesta.',
  'Its file is on its way, or missing.': 'Il suo file sta arrivando, o manca.',
  'Nothing is different': 'Niente è diverso',
  '; not compared, being different each time: {0}': '; non confrontati, perché diversi ogni volta: {0}',
  'this one': 'questo',
  'the other': 'l’altro',
  'this one was {0} times as long': 'questo è durato {0} volte tanto',
  'it was {0} times as long': 'è durato {0} volte tanto',
  'the same test': 'lo stesso test',
  'the baseline, {0}': 'il riferimento, {0}',
  'this test': 'questo test',
  'other attempts': 'altri tentativi',
  'other rows': 'altre righe',
  'other tests': 'altri test',
  'no media type': 'nessun tipo',
  '{0} unpacked': '{0} decompressi',
  'Not kept: {0}.': 'Non conservato: {0}.',
  'Only the beginning was kept.': 'È stato conservato solo l’inizio.',
  'Only the beginning is shown.': 'Si mostra solo l’inizio.',
  'show all that was kept': 'mostra tutto ciò che è stato conservato',
  'The body': 'Il corpo',
  'a part': 'una parte',
  'the file {0}': 'il file {0}',
  'Search in this body': 'Cerca in questo corpo',
  'not found': 'non trovato',
  raw: 'grezzo',
  formatted: 'formattato',
  'collapse all': 'chiudi tutto',
  'expand all': 'apri tutto',

  // Attachments and videos
  'is missing in the run folder': 'manca nella cartella dell’esecuzione',
  '{0}, was too large for this file': '{0}, troppo grande per questo file',
  'too large for this file': 'troppo grande per questo file',
  'Previous attachment': 'Allegato precedente',
  'Next attachment': 'Allegato successivo',
  'This attachment is missing in the run folder.': 'Questo allegato manca nella cartella dell’esecuzione.',
  'This attachment is neither text nor an image: download it.': 'Questo allegato non è né testo né immagine: scaricalo.',
  'The file that holds this text is missing beside the page.': 'Il file di questo testo manca accanto alla pagina.',
  'Only the first {0} are shown; the file has it all.': 'Si mostrano solo i primi {0}; il file ha tutto.',
  'Search in this text': 'Cerca in questo testo',
  '{0}; Enter goes to the next': '{0}; Invio va al successivo',
  'show as text': 'mostra come testo',
  'show as a page, without scripts and network': 'mostra come pagina, senza script e senza rete',
  'The page as it was': 'La pagina com’era',
  Size: 'Dimensione',
  'Smaller (key -)': 'Più piccola (tasto -)',
  'Fit (key 0)': 'Adatta (tasto 0)',
  'Larger (key +)': 'Più grande (tasto +)',
  fit: 'adatta',
  fitted: 'adattata',
  'Video of the browser; space plays and pauses, arrows go frame by frame':
    'Video del browser; spazio avvia e ferma, le frecce vanno fotogramma per fotogramma',
  'Position in the video': 'Posizione nel video',
  'A frame back (key ←)': 'Un fotogramma indietro (tasto ←)',
  'A frame on (key →)': 'Un fotogramma avanti (tasto →)',
  Frames: 'Fotogrammi',
  Speed: 'Velocità',
  play: 'avvia',
  pause: 'ferma',
  enlarge: 'ingrandisci',
  captions: 'sottotitoli',

  // Workers
  '{0} ran for {1} in {2}.': '{0} hanno lavorato {1} in {2}.',
  'Side by side they saved {0}; the busiest was at work for {1}.': 'Insieme hanno risparmiato {0}; il più occupato ha lavorato {1}.',
  'The busiest was at work for {0}.': 'Il più occupato ha lavorato {0}.',
  'the whole run': 'tutta l’esecuzione',
  Zoom: 'Zoom',
  Earlier: 'Prima',
  Later: 'Dopo',
  Closer: 'Più vicino',
  Further: 'Più lontano',
  'Drag over the lines to look closer.': 'Trascina sulle righe per guardare da vicino.',
  '{0} in time; the table below has the same in numbers': '{0} nel tempo; la tabella sotto ha gli stessi numeri',
  '{0}, {1} after {2}': '{0}, {1} dopo {2}',
  '{0}, from {1}; look closer to tell them apart': '{0}, da {1}; guarda da vicino per distinguerli',
  'worker, thread': 'worker, thread',
  busy: 'occupato',
  'of the run': 'dell’esecuzione',
  'longest pause': 'pausa più lunga',

  // Earlier runs
  'No earlier run is known': 'Non si conosce nessuna esecuzione precedente',
  'Remember runs with {0}, and write the page with {1}.': 'Ricorda le esecuzioni con {0}, e scrivi la pagina con {1}.',
  '{0} of the last {1} passed whole.': '{0} delle ultime {1} è passata per intero.',
  'As often, {0} did not pass this time.': 'Come spesso, questa volta {0} non sono passati.',
  'This time {0} did not pass; usually all do.': 'Questa volta {0} non sono passati; di solito passano tutti.',
  'This time {0} did not pass; usually it is {1}.': 'Questa volta {0} non sono passati; di solito {1}.',
  'Failing or flaky now': 'Falliti o instabili ora',
  'Flaky in these runs': 'Instabili in queste esecuzioni',
  'Slower than they were': 'Più lenti di prima',
  'Tests of each run, those that did not pass at the top': 'I test di ogni esecuzione, in cima quelli non passati',
  'tests of each run; red ones did not pass': 'i test di ogni esecuzione; in rosso i non passati',
  'of this run {0} of {1}': 'di questa esecuzione {0} di {1}',
  'How long each run was, up to {0}; this one {1}': 'Quanto è durata ogni esecuzione, fino a {0}; questa {1}',
  'how long each run was': 'quanto è durata ogni esecuzione',
  'The runs in numbers': 'Le esecuzioni in numeri',
  'The file with the tests of these runs is missing beside the page.': 'Il file con i test di queste esecuzioni manca accanto alla pagina.',
  began: 'inizio',
  'did not pass': 'non passati',

  // What is missing
  'The data of this page is missing': 'Mancano i dati di questa pagina',
  'This page needs the folder data that was written beside it. Copy or unpack the folder as a whole, or write the page again:':
    'Questa pagina ha bisogno della cartella data scritta accanto. Copia o estrai la cartella intera, o scrivi di nuovo la pagina:',
} as const;

export type Text = keyof typeof ITALIAN;

/** One and several of what is counted: in English, then in Italian. */
export const NOUNS = {
  attempt: ['attempt', 'attempts', 'tentativo', 'tentativi'],
  check: ['check', 'checks', 'verifica', 'verifiche'],
  'class or set-up': ['class or set-up', 'classes or set-ups', 'classe o preparazione rotta', 'classi o preparazioni rotte'],
  difference: ['difference', 'differences', 'differenza', 'differenze'],
  'earlier run': ['earlier run', 'earlier runs', 'esecuzione precedente', 'esecuzioni precedenti'],
  error: ['error', 'errors', 'errore', 'errori'],
  exchange: ['exchange', 'exchanges', 'scambio', 'scambi'],
  hit: ['hit', 'hits', 'risultato', 'risultati'],
  line: ['line', 'lines', 'riga', 'righe'],
  'more reason': ['more reason', 'more reasons', 'altro motivo', 'altri motivi'],
  'more test': ['more test', 'more tests', 'altro test', 'altri test'],
  'more thread': ['more thread', 'more threads', 'altro thread', 'altri thread'],
  'other test has': ['other test has', 'other tests have', 'altro test ha', 'altri test hanno'],
  problem: ['problem', 'problems', 'problema', 'problemi'],
  request: ['request', 'requests', 'richiesta', 'richieste'],
  row: ['row', 'rows', 'riga', 'righe'],
  run: ['run', 'runs', 'esecuzione', 'esecuzioni'],
  start: ['start', 'starts', 'avvio', 'avvii'],
  step: ['step', 'steps', 'passo', 'passi'],
  test: ['test', 'tests', 'test', 'test'],
  thread: ['thread', 'threads', 'thread', 'thread'],
  value: ['value', 'values', 'valore', 'valori'],
} as const;

const REMEMBERED = 'verbale-language';

export const language = signal<Language>(chosen());

effect(() => {
  document.documentElement.lang = language.value;
});

/** What somebody chose here before, or the first of the browser's languages that the page speaks. */
function chosen(): Language {
  try {
    const before = localStorage.getItem(REMEMBERED);
    if (before === 'en' || before === 'it') return before;
  } catch {
    // then it is forgotten when the page closes
  }
  const known = navigator.languages.map((one) => one.slice(0, 2)).find((one) => one === 'en' || one === 'it');
  return known === 'it' ? 'it' : 'en';
}

export function speak(wanted: Language): void {
  language.value = wanted;
  try {
    localStorage.setItem(REMEMBERED, wanted);
  } catch {
    // then it is forgotten when the page closes
  }
}

export const other = (): Language => (language.value === 'it' ? 'en' : 'it');

/** How the reader writes numbers and dates: as their browser says, where that is in the language that the page speaks. */
export function locale(): string {
  return navigator.languages.find((one) => one.startsWith(language.value)) ?? (language.value === 'it' ? 'it-IT' : 'en-GB');
}

export function t(text: Text, ...parts: (string | number)[]): string {
  const said: string = language.value === 'it' ? ITALIAN[text] : text;
  return parts.length === 0 ? said : said.replace(/\{(\d)}/g, (_, at: string) => String(parts[Number(at)] ?? ''));
}

/** A word that may be one of ours, such as an outcome, or one of a later version, which stays as it is. */
export function known(word: string): string {
  return Object.hasOwn(ITALIAN, word) ? t(word as Text) : word;
}
