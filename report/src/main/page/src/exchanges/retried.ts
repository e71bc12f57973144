// Requests that a client, or a test, made once more since the first could not be answered.
import type { Exchange } from '../data/types';

/** Statuses that say: try again (RFC 9110, RFC 6585, RFC 8470). */
const TRY_AGAIN = new Set([408, 425, 429, 502, 503, 504]);

/** The exchange right before, where this one is its retry: the same request after no answer, or one that asks for it. */
export function retryOf(exchange: Exchange, before: Exchange | undefined): Exchange | undefined {
  const isSame =
    before !== undefined &&
    before.method === exchange.method &&
    before.url === exchange.url &&
    before.request.body?.inline === exchange.request.body?.inline &&
    (before.thread ?? '') === (exchange.thread ?? '');
  return isSame && (before.failed !== undefined || TRY_AGAIN.has(before.status ?? 0)) ? before : undefined;
}
