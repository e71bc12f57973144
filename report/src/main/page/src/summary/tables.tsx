// How tests went by module, class, package, tag, owner, severity. Each number leads to the tests that it counts.
import { testsLink } from '../data/route';
import { durationText, whole } from '../words/text';
import type { GroupTable } from '../data/types';
import { t } from '../words/texts';

export function Tables({ tables }: { tables: GroupTable[] }) {
  const shown = tables.filter((table) => table.groups > 1 || table.by === 'tag' || table.by === 'owner');
  if (shown.length === 0) return null;
  return (
    <div class="tables">
      {shown.map((table) => (
        <Table key={table.by} table={table} />
      ))}
    </div>
  );
}

function Table({ table }: { table: GroupTable }) {
  const largest = Math.max(...table.rows.map(([, tests]) => tests));
  return (
    <section>
      <table class="groups">
        <caption>
          <a href={testsLink({ group: table.by === 'class' ? '' : table.by })}>{t('By {0}', t(table.by))}</a>
        </caption>
        <thead class="visually-hidden">
          <tr>
            <th scope="col">{t(table.by)}</th>
            <th scope="col">{t('passed of all')}</th>
            <th scope="col">{t('tests')}</th>
            <th scope="col">{t('time')}</th>
          </tr>
        </thead>
        <tbody>
          {table.rows.map(([name, tests, attention, flaky, time]) => (
            <tr key={name}>
              <th scope="row">
                <a href={testsLink({ [table.by]: name })}>{name}</a>
              </th>
              <td class="share" aria-label={t('{0} of {1} passed or were not run', whole(tests - attention), whole(tests))}>
                <svg viewBox="0 0 100 8" preserveAspectRatio="none" aria-hidden="true">
                  <rect class="calm" width={(100 * (tests - attention)) / largest} height="8" />
                  <rect class="attention" x={(100 * (tests - attention)) / largest} width={(100 * attention) / largest} height="8" />
                </svg>
              </td>
              <td class="number">
                {attention > 0 && <a class="attention" href={testsLink({ [table.by]: name, failing: 'failing' })}>{whole(attention)}</a>}
                {attention > 0 && ` ${t('of')} `}
                {whole(tests)}
                {flaky > 0 && <span class="dim">, {t('{0} flaky', whole(flaky))}</span>}
              </td>
              <td class="number dim">{durationText(time)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {table.groups > table.rows.length && (
        <p class="dim">
          <a href={testsLink({ group: table.by === 'class' ? '' : table.by })}>{t('and {0} more', whole(table.groups - table.rows.length))}</a>
        </p>
      )}
    </section>
  );
}
