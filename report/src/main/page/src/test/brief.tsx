// Under a failure: what the page had instead of an element that was not found, and all of it as text for an issue or an assistant.
import { useState } from 'preact/hooks';
import { briefFiles } from '../data/loaded';
import type { Brief } from '../data/types';
import { known, t } from '../words/texts';

const SHOWN_FOR = 2_000;

export function BriefPart({ position, id }: { position: number; id: string }) {
  const file = briefFiles.get(String(position)).value;
  if (file.state !== 'here' || (file.value.id !== undefined && file.value.id !== id)) return null;
  return (
    <>
      <Nearest brief={file.value} />
      <Snippet brief={file.value} />
      <CopyAsText text={file.value.text} />
    </>
  );
}

function Nearest({ brief }: { brief: Brief }) {
  if (!brief.nearest) return null;
  return (
    <section class="nearest" aria-label={t('Nearest elements')}>
      <h2>
        {brief.nearest.length === 0 ? t('The page had nothing like') : t('The page had no')} <span class="code">{brief.locator}</span>
        {brief.nearest.length > 0 && t('; nearest to it:')}
      </h2>
      <ul>
        {brief.nearest.map(([selector, text, why]) => (
          <li key={selector}>
            <span class="code">{selector}</span> {text && <q>{text}</q>} <span class="dim">{spoken(why)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Why it is near, by the words of NearestElements.java. */
function spoken(why: string): string {
  return why
    .split(', ')
    .map((one) => (one.startsWith('is called ') ? t('is called {0}', one.slice('is called '.length)) : known(one)))
    .join(', ');
}

/** The line that failed, among its neighbours. */
function Snippet({ brief }: { brief: Brief }) {
  const { source } = brief;
  if (!source) return null;
  return (
    <section class="snippet" aria-label={t('Source')}>
      <h2>
        {t('{0}, line {1}', source.file, source.line)}
      </h2>
      <pre tabIndex={0}>
        {source.lines.map((line, index) => {
          const number = source.first + index;
          const text = `${String(number).padStart(5)}  ${line}`;
          return number === source.line ? <mark key={number}>{text}</mark> : <span key={number}>{text}</span>;
        })}
      </pre>
    </section>
  );
}

function CopyAsText({ text }: { text: string }) {
  const [isCopied, setCopied] = useState(false);
  const copy = () =>
    void navigator.clipboard.writeText(text).then(() => {
      setCopied(true);
      setTimeout(() => setCopied(false), SHOWN_FOR);
    });
  return (
    <p class="brief">
      <button class="word" onClick={copy} title={t('The test, its steps, the failure, console, exchanges, environment')}>{t('Copy as text')}</button>{' '}
      <span class="dim" role="status">
        {isCopied ? t('copied') : ''}
      </span>
    </p>
  );
}
