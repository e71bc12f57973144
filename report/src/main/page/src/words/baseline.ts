// Beside which run a failure is new: said in the same words wherever something is new.
import { day } from './text';
import { t } from './texts';
import type { RunData } from '../data/types';

export function sinceBaseline(news: NonNullable<RunData['news']>): string {
  return news.branch ? t('since the run of {1} of {0}', day(news.started), news.branch) : t('since the run of {0}', day(news.started));
}
