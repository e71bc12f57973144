// An image, large: fitted into the viewer, or in its own size and beyond.
import { useEffect, useRef, useState } from 'preact/hooks';
import { address } from '../data/packed';
import type { Attachment } from '../data/types';
import { t } from '../words/texts';

const ZOOMS = [0.5, 1, 2, 4];

/** Fitted into the dialog; a click shows that point in its own size, and + and - make it larger and smaller. */
export function ImageViewer({ attachment }: { attachment: Attachment }) {
  const [zoom, setZoom] = useState<number | undefined>(undefined);
  const image = useRef<HTMLImageElement>(null);
  const position = useRef<[number, number] | undefined>(undefined);
  const change = (by: number) => setZoom(ZOOMS[Math.min(ZOOMS.length - 1, Math.max(0, ZOOMS.indexOf(zoom ?? 1) + by))]);
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      if (event.key === '+') change(1);
      if (event.key === '-') change(-1);
      if (event.key === '0') setZoom(undefined);
    };
    addEventListener('keydown', keys);
    return () => removeEventListener('keydown', keys);
  });
  useEffect(() => {
    const box = image.current?.parentElement;
    if (!box || !image.current || !position.current || zoom === undefined) return;
    const [x, y] = position.current;
    box.scrollTo(image.current.offsetWidth * x - box.clientWidth / 2, image.current.offsetHeight * y - box.clientHeight / 2);
    position.current = undefined;
  }, [zoom]);
  const toggle = (event: MouseEvent) => {
    const frame = image.current!.getBoundingClientRect();
    position.current = [(event.clientX - frame.left) / frame.width, (event.clientY - frame.top) / frame.height];
    setZoom(zoom === undefined ? 1 : undefined);
  };
  return (
    <>
      <div class="zoom" role="group" aria-label={t('Size')}>
        <button class="quiet" onClick={() => change(-1)} title={t('Smaller (key -)')}>
          −
        </button>
        <button class="quiet" aria-pressed={zoom === undefined} onClick={() => setZoom(undefined)} title={t('Fit (key 0)')}>
          {t('fit')}
        </button>
        <button class="quiet" onClick={() => change(1)} title={t('Larger (key +)')}>
          +
        </button>
        <span class="dim">{zoom === undefined ? t('fitted') : `${zoom * 100} %`}</span>
      </div>
      <div class={`image-viewer ${zoom === undefined ? 'fitted' : ''}`}>
        <img
          ref={image}
          src={attachment.href && address(attachment.href)}
          alt={attachment.name}
          onClick={toggle}
          style={zoom === undefined ? {} : { width: `${(image.current?.naturalWidth ?? 0) * zoom}px` }}
        />
      </div>
    </>
  );
}
