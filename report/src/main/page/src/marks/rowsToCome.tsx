// Where the list of tests is not here yet, or not at all.
import { rowsLoaded } from '../data/loaded';
import { t } from '../words/texts';

export function RowsToCome() {
  if (rowsLoaded.value === 'here') return null;
  return (
    <main class="lost" aria-busy={rowsLoaded.value === 'loading'}>
      {rowsLoaded.value === 'loading' ? (
        <p class="dim">{t('The tests are loading.')}</p>
      ) : (
        <>
          <h1>{t('The list of tests is not whole')}</h1>
          <p>
            {t('Files in data/rows are missing beside this page. Copy or unpack the folder as a whole, or write the page again:')}{' '}
            <code>verbale page</code>
          </p>
        </>
      )}
    </main>
  );
}
