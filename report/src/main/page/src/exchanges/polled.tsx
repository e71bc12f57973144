// A request that was made again and again until it was answered otherwise: one line, opened all of them.
import { ExchangeLine, short } from './exchange';
import { statusOf } from '../marks/status';
import { durationText, whole } from '../words/text';
import type { Exchange } from '../data/types';
import { t } from '../words/texts';

/** Fewer are no waiting, but a request made twice. */
export const FEWEST = 3;

export function isSameRequest(one: Exchange, other: Exchange): boolean {
  return (
    one.method === other.method &&
    one.url === other.url &&
    one.request.body?.inline === other.request.body?.inline &&
    one.response?.body?.mediaType === other.response?.body?.mediaType
  );
}

export function PolledLine({ exchanges }: { exchanges: Exchange[] }) {
  const first = exchanges[0]!;
  const last = exchanges.at(-1)!;
  const before = exchanges.findLast((one) => answerOf(one) !== answerOf(last)) ?? first;
  const lasted = last.at + (last.duration ?? 0) - first.at;
  return (
    <div class="step polled">
      <details>
        <summary>
          <b class="method">{first.method}</b> <span class="where">{short(first.url)}</span>
          <span class="status">{t('{0} times', whole(exchanges.length))}</span>
          <span class="duration">{durationText(lasted)}</span>
          <span class="dim">{before === first && answerOf(first) === answerOf(last) ? t('answered {0} each time', answerOf(last)) : t('answered {0}, at last {1}', answerOf(before), answerOf(last))}</span>
        </summary>
        {exchanges.map((exchange, index) => (
          <ExchangeLine key={index} exchange={exchange} before={exchanges[index - 1]} />
        ))}
      </details>
    </div>
  );
}

const LONGEST = 60;

/** What was answered, short: the status, and a short body, which is what is waited for. */
function answerOf(exchange: Exchange): string {
  const text = exchange.response?.body?.inline?.replace(/\s+/g, ' ').trim() ?? '';
  const body = text.length > LONGEST ? text.slice(0, LONGEST - 1) + '…' : text;
  return `${statusOf(exchange)}${body && ' ' + body}`;
}
