// Papers: small in the margin, large in a dialog. A paper is shown as a picture, a film or text; never as a document.
import { signal } from '@preact/signals';
import { useEffect, useRef, useState } from 'preact/hooks';
import { SourceText } from './source';
import { texts } from './store';
import { bytes } from './text';
import type { Paper } from './types';

const PICTURES = ['image/png', 'image/jpeg', 'image/gif', 'image/webp'];
const FILMS = ['video/webm', 'video/mp4'];

const open = signal<{ papers: Paper[]; at: number } | undefined>(undefined);

/** `papers` of one moment, out of `all` that can be paged through. */
export function Slips({ papers, all }: { papers: Paper[]; all: Paper[] }) {
  return (
    <div class="slips">
      {papers.map((paper, index) => (
        <Slip key={index} paper={paper} onOpen={() => (open.value = { papers: all, at: all.indexOf(paper) })} />
      ))}
    </div>
  );
}

function Slip({ paper, onOpen }: { paper: Paper; onOpen(): void }) {
  if (!paper.href)
    return (
      <span class="slip missing">
        <b>{paper.name}</b> {paper.awaited ? 'was promised and never came' : 'is missing in the run folder'}
      </span>
    );
  return (
    <button class="slip" onClick={onOpen}>
      {PICTURES.includes(paper.mediaType) && <img src={paper.href} alt="" loading="lazy" />}
      <span>
        <b>{paper.name}</b> <span class="dim">{bytes(paper.size)}</span>
      </span>
    </button>
  );
}

export function Reader() {
  const dialog = useRef<HTMLDialogElement>(null);
  const now = open.value;
  const paper = now?.papers[now.at];
  useEffect(() => {
    if (paper && !dialog.current?.open) dialog.current?.showModal();
  }, [paper]);
  const page = (by: number) => {
    if (now) open.value = { ...now, at: (now.at + by + now.papers.length) % now.papers.length };
  };
  const keys = (event: KeyboardEvent) => {
    if (event.key === 'ArrowLeft') page(-1);
    if (event.key === 'ArrowRight') page(1);
  };
  return (
    <dialog ref={dialog} class="reader" aria-label={paper?.name} onKeyDown={keys} onClose={() => (open.value = undefined)}>
      {now && paper && (
        <>
          <header>
            <h2>{paper.name}</h2>
            <span class="dim">
              {paper.mediaType}, {bytes(paper.size)}
            </span>
            {paper.href && (
              <a href={paper.href} target="_blank" rel="noopener">
                the file
              </a>
            )}
            <span class="turning">
              {now.papers.length > 1 && (
                <>
                  <button class="quiet" onClick={() => page(-1)} aria-label="Previous paper">
                    ‹
                  </button>
                  <span class="dim">
                    {now.at + 1} of {now.papers.length}
                  </span>
                  <button class="quiet" onClick={() => page(1)} aria-label="Next paper">
                    ›
                  </button>
                </>
              )}
              <button class="quiet" onClick={() => dialog.current?.close()} aria-label="Close">
                ✕
              </button>
            </span>
          </header>
          <Content paper={paper} />
        </>
      )}
    </dialog>
  );
}

function Content({ paper }: { paper: Paper }) {
  if (!paper.href) return <p class="reason">This paper is missing in the run folder.</p>;
  if (PICTURES.includes(paper.mediaType)) return <Picture key={paper.href} paper={paper} />;
  if (FILMS.includes(paper.mediaType)) return <video class="large" src={paper.href} controls />;
  if (paper.text === undefined) return <p class="reason">This paper is neither text nor a picture: open the file.</p>;
  const text = texts.get(paper.text).value;
  if (text.state === 'loading') return <p class="dim">…</p>;
  if (text.state === 'lost') return <p class="reason">The file that holds this text is missing beside the page.</p>;
  return (
    <>
      {text.value.cutAt && <p class="reason">Only the first {bytes(text.value.cutAt)} are shown; the file has it all.</p>}
      <SourceText key={paper.text} text={text.value.text} isPage={paper.kind === 'page-source'} />
    </>
  );
}

const ZOOMS = [0.5, 1, 2, 4];

/** Fitted into the dialog; a click shows it in its own size at that place, and + and - make it larger and smaller. */
function Picture({ paper }: { paper: Paper }) {
  const [zoom, setZoom] = useState<number | undefined>(undefined);
  const image = useRef<HTMLImageElement>(null);
  const place = useRef<[number, number] | undefined>(undefined);
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
    if (!box || !image.current || !place.current || zoom === undefined) return;
    const [x, y] = place.current;
    box.scrollTo(image.current.offsetWidth * x - box.clientWidth / 2, image.current.offsetHeight * y - box.clientHeight / 2);
    place.current = undefined;
  }, [zoom]);
  const turn = (event: MouseEvent) => {
    const frame = image.current!.getBoundingClientRect();
    place.current = [(event.clientX - frame.left) / frame.width, (event.clientY - frame.top) / frame.height];
    setZoom(zoom === undefined ? 1 : undefined);
  };
  return (
    <>
      <div class="zoom" role="group" aria-label="Size">
        <button class="quiet" onClick={() => change(-1)} title="Smaller (key -)">
          −
        </button>
        <button class="quiet" aria-pressed={zoom === undefined} onClick={() => setZoom(undefined)} title="Fit (key 0)">
          fit
        </button>
        <button class="quiet" onClick={() => change(1)} title="Larger (key +)">
          +
        </button>
        <span class="dim">{zoom === undefined ? 'fitted' : `${zoom * 100} %`}</span>
      </div>
      <div class={`easel ${zoom === undefined ? 'fitted' : ''}`}>
        <img
          ref={image}
          src={paper.href}
          alt={paper.name}
          onClick={turn}
          style={zoom === undefined ? {} : { width: `${(image.current?.naturalWidth ?? 0) * zoom}px` }}
        />
      </div>
    </>
  );
}
