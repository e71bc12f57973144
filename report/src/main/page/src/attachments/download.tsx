// A file to be kept under its own name.
import { address } from '../data/packed';
import { fileName } from '../data/request';
import { t } from '../words/texts';

export function Download({ href, label = t('download') }: { href: string; label?: string }) {
  const from = address(href);
  if (!from) return <span class="dim">{t('too large for this file')}</span>;
  return (
    <a class="dim" href={from} target="_blank" rel="noopener" download={fileName(href)}>
      {label}
    </a>
  );
}
