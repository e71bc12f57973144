// Attachments: small in the margin, large in a dialog. One is shown as an image, a video or text; never as a document.
import { signal } from '@preact/signals';
import { useEffect, useRef } from 'preact/hooks';
import { Download } from './download';
import { ImageViewer } from './imageViewer';
import { address } from '../data/packed';
import { SourceText } from './source';
import { texts } from '../data/loaded';
import { bytes } from '../words/text';
import type { Attachment } from '../data/types';
import { t } from '../words/texts';

const IMAGES = ['image/png', 'image/jpeg', 'image/gif', 'image/webp'];
const VIDEOS = ['video/webm', 'video/mp4'];

const open = signal<{ attachments: Attachment[]; at: number } | undefined>(undefined);

/** `attachments` of one moment, out of `all` that can be paged through. */
export function Thumbnails({ attachments, all }: { attachments: Attachment[]; all: Attachment[] }) {
  return (
    <div class="thumbnails">
      {attachments.map((attachment, index) => (
        <Thumbnail key={index} attachment={attachment} onOpen={() => (open.value = { attachments: all, at: all.indexOf(attachment) })} />
      ))}
    </div>
  );
}

function Thumbnail({ attachment, onOpen }: { attachment: Attachment; onOpen(): void }) {
  if (!attachment.href)
    return (
      <span class="thumbnail missing">
        <b>{attachment.name}</b> {attachment.leftOut ? t('was left out of this copy: {0}', attachment.leftOut) : t('is missing in the run folder')}
      </span>
    );
  if (!address(attachment.href))
    return (
      <span class="thumbnail missing">
        <b>{attachment.name}</b> <span class="dim">{t('{0}, was too large for this file', bytes(attachment.size))}</span>
      </span>
    );
  return (
    <button class="thumbnail" onClick={onOpen}>
      {IMAGES.includes(attachment.mediaType) && <img src={address(attachment.href)} alt="" loading="lazy" />}
      <span>
        <b>{attachment.name}</b> <span class="dim">{bytes(attachment.size)}</span>
      </span>
    </button>
  );
}

export function Viewer() {
  const dialog = useRef<HTMLDialogElement>(null);
  const now = open.value;
  const attachment = now?.attachments[now.at];
  useEffect(() => {
    if (attachment && !dialog.current?.open) dialog.current?.showModal();
  }, [attachment]);
  const page = (by: number) => {
    if (now) open.value = { ...now, at: (now.at + by + now.attachments.length) % now.attachments.length };
  };
  const keys = (event: KeyboardEvent) => {
    if (event.key === 'ArrowLeft') page(-1);
    if (event.key === 'ArrowRight') page(1);
  };
  return (
    <dialog ref={dialog} class="viewer" aria-label={attachment?.name} onKeyDown={keys} onClose={() => (open.value = undefined)}>
      {now && attachment && (
        <>
          <header>
            <h2>{attachment.name}</h2>
            <span class="dim">
              {attachment.mediaType}, {bytes(attachment.size)}
            </span>
            {attachment.href && (
              <Download href={attachment.href} />
            )}
            <span class="navigation">
              {now.attachments.length > 1 && (
                <>
                  <button class="quiet" onClick={() => page(-1)} aria-label={t('Previous attachment')}>
                    ‹
                  </button>
                  <span class="dim">
                    {t('{0} of {1}', now.at + 1, now.attachments.length)}
                  </span>
                  <button class="quiet" onClick={() => page(1)} aria-label={t('Next attachment')}>
                    ›
                  </button>
                </>
              )}
              <button class="quiet" onClick={() => dialog.current?.close()} aria-label={t('Close')}>
                ✕
              </button>
            </span>
          </header>
          <Content attachment={attachment} />
        </>
      )}
    </dialog>
  );
}

function Content({ attachment }: { attachment: Attachment }) {
  if (!attachment.href) return <p class="reason">{attachment.leftOut ? t('was left out of this copy: {0}', attachment.leftOut) : t('This attachment is missing in the run folder.')}</p>;
  if (IMAGES.includes(attachment.mediaType)) return <ImageViewer key={attachment.href} attachment={attachment} />;
  if (VIDEOS.includes(attachment.mediaType)) return <video class="large" src={address(attachment.href)} controls />;
  if (attachment.text === undefined) return <p class="reason">{t('This attachment is neither text nor an image: download it.')}</p>;
  const text = texts.get(attachment.text).value;
  if (text.state === 'loading') return <p class="dim">…</p>;
  if (text.state === 'lost') return <p class="reason">{t('The file that holds this text is missing beside the page.')}</p>;
  return (
    <>
      {text.value.cutAt && <p class="reason">{t('Only the first {0} are shown; the file has it all.', bytes(text.value.cutAt))}</p>}
      <SourceText key={attachment.text} text={text.value.text} isPage={attachment.kind === 'page-source'} />
    </>
  );
}
