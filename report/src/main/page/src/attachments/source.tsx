// A text, to be searched, and a page's source to be looked at as well: without its scripts, its network and its links.
import { useMemo, useRef, useState } from 'preact/hooks';
import { split } from '../marks/marked';
import { count } from '../words/text';
import { t } from '../words/texts';

const MAX_FOUND = 2_000; // as split finds

export function SourceText({ text, isPage }: { text: string; isPage: boolean }) {
  const [words, setWords] = useState('');
  const [drawn, setDrawn] = useState(false);
  const at = useRef(-1);
  const box = useRef<HTMLPreElement>(null);
  const parts = useMemo(() => split(text, words), [text, words]);
  const found = parts.filter((part) => part.hit).length;
  const next = (by: number) => {
    const marks = box.current?.querySelectorAll('mark') ?? [];
    if (marks.length === 0) return;
    marks[at.current]?.classList.remove('current');
    at.current = (at.current + by + marks.length) % marks.length;
    marks[at.current]!.classList.add('current');
    marks[at.current]!.scrollIntoView({ block: 'center' });
  };
  return (
    <>
      <div class="source-controls">
        {!drawn && (
          <>
            <input
              type="search"
              placeholder={t('Search in this text')}
              aria-label={t('Search in this text')}
              value={words}
              onInput={(e) => {
                at.current = -1;
                setWords(e.currentTarget.value);
              }}
              onKeyDown={(e) => {
                e.stopPropagation(); // arrow keys belong to the field here
                if (e.key === 'Enter') next(e.shiftKey ? -1 : 1);
              }}
            />
            <span class="dim" role="status">
              {words && (found === 0 ? t('not found') : t('{0}; Enter goes to the next', count(found, 'hit') + (found === MAX_FOUND ? '+' : '')))}
            </span>
          </>
        )}
        {isPage && (
          <button class="quiet" aria-pressed={drawn} onClick={() => setDrawn(!drawn)}>
            {drawn ? t('show as text') : t('show as a page, without scripts and network')}
          </button>
        )}
      </div>
      {drawn ? (
        <iframe class="drawn" sandbox="" srcdoc={harmless(text)} title={t('The page as it was')} />
      ) : (
        <pre class="attachment-text" ref={box}>
          {parts.map((part, index) => (part.hit ? <mark key={index}>{part.text}</mark> : part.text))}
        </pre>
      )}
    </>
  );
}

/** The sandbox allows nothing; this adds that nothing is asked of the network, and that links lead nowhere. */
function harmless(html: string): string {
  return (
    '<meta http-equiv="Content-Security-Policy" content="default-src \'none\'; style-src \'unsafe-inline\'; img-src data:">' +
    '<base target="_blank">' +
    html
  );
}
