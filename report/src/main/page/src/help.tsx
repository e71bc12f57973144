// The keys, on `?`.
import { useEffect, useRef } from 'preact/hooks';
import { onKey } from './data/keys';
import { t } from './words/texts';

const KEYS = [
  ['?', 'these keys'],
  ['s, t', 'the summary, the tests'],
  ['/', 'search in the tests'],
  ['n, p', 'next and previous test'],
  ['f', 'next failure'],
  ['e', 'unfold everything, and fold it'],
  ['←, →, Esc', 'step through attachments, and close them'],
  ['+, -, 0', 'an image larger, smaller, fitted'],
  ['Space', 'play a video, and pause it'],
] as const;

export function Help() {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => onKey('?', () => (dialog.current?.open ? dialog.current.close() : dialog.current?.showModal())), []);
  return (
    <dialog ref={dialog} class="help" aria-labelledby="help-title">
      <h2 id="help-title">{t('Keys')}</h2>
      <dl>
        {KEYS.map(([key, meaning]) => (
          <>
            <dt>{key}</dt>
            <dd>{t(meaning)}</dd>
          </>
        ))}
      </dl>
      <button class="word" onClick={() => dialog.current?.close()}>
        {t('Close')}
      </button>
    </dialog>
  );
}
