// How an exchange was answered, in a word.
import type { Exchange } from '../data/types';
import { t } from '../words/texts';

/** What is no HTTP may be answered without a status. */
export function statusOf(exchange: Exchange): string {
  return exchange.status ? String(exchange.status) : exchange.response ? t('answered') : t('no response');
}

/** As a row has it: 0 where it was answered without one, and -1 where it was not answered. */
export function statusText(status: number): string {
  return status > 0 ? String(status) : status === 0 ? t('answered') : t('no response');
}
