// What the browser showed: a video, or single pictures with their times. It stands beside the account and follows it both
// ways: a line that is chosen seeks the film, and while the film plays its moment is marked among the lines.
import { computed, signal, useSignal } from '@preact/signals';
import { useEffect, useRef } from 'preact/hooks';
import { offset } from './text';
import type { Entry, Paper } from './types';

const VIDEOS = ['video/webm', 'video/mp4'];
const SPEEDS = [0.25, 0.5, 1, 2];
const A_FRAME = 0.04;

type Timed = Paper & { begins: number; href: string };

export type Filmed = { video: Timed } | { strip: Timed[] };

/** The moment that the film shows, in microseconds of the run; undefined while nobody looked at it. */
export const shown = signal<number | undefined>(undefined);

/** Where the account wants the film to be. */
const wanted = signal<{ at: number } | undefined>(undefined);

export const playing = signal(false);

/** Brings the film to a moment of the run. */
export function seek(at: number): void {
  wanted.value = { at };
}

/** The film among a test's papers, if there is one: its last video, or its pictures. */
export function filmOf(entries: Entry[]): Filmed | undefined {
  const papers = timed(entries);
  const video = papers.findLast((paper) => paper.kind === 'video' && VIDEOS.includes(paper.mediaType));
  if (video) return { video };
  const strip = papers.filter((paper) => paper.kind === 'filmstrip').toSorted((a, b) => a.begins - b.begins);
  return strip.length > 0 ? { strip } : undefined;
}

function timed(entries: Entry[]): Timed[] {
  return entries.flatMap((entry) => {
    if (entry.is === 'step') return timed(entry.entries);
    if (entry.is !== 'paper' || !entry.href || entry.begins === undefined) return [];
    return [{ ...entry, href: entry.href, begins: entry.begins }];
  });
}

interface Props {
  film: Filmed;
  /** The moment that the times are counted from. */
  start: number;
  /** What happened at the moment that is shown. */
  caption: string;
  /** The moments at which something happened. */
  ticks: number[];
}

export function Film({ film, start, caption, ticks }: Props) {
  useEffect(() => {
    shown.value = undefined;
    wanted.value = undefined;
    return () => {
      shown.value = undefined;
      playing.value = false;
    };
  }, [film]);
  return (
    <figure class="film">
      {'video' in film ? <Video paper={film.video} ticks={ticks} /> : <Strip pictures={film.strip} />}
      <figcaption>
        <span class="time">{offset((shown.value ?? ('video' in film ? film.video.begins : film.strip[0]!.begins)) - start)}</span>
        <span class="caption">{caption}</span>
        {'video' in film && film.video.chapters && (
          <a class="dim" href={film.video.chapters} download>
            chapters
          </a>
        )}
      </figcaption>
    </figure>
  );
}

function Video({ paper, ticks }: { paper: Timed; ticks: number[] }) {
  const video = useRef<HTMLVideoElement>(null);
  const length = useSignal(0);
  const speed = useSignal(1);
  const want = wanted.value;
  useEffect(() => {
    if (want && video.current) video.current.currentTime = Math.max(0, (want.at - paper.begins) / 1e6);
  }, [want]);
  const follow = () => {
    if (video.current) shown.value = paper.begins + video.current.currentTime * 1e6;
  };
  const by = (seconds: number) => {
    if (video.current) video.current.currentTime += seconds;
  };
  const turn = () => {
    if (video.current?.paused) void video.current.play();
    else video.current?.pause();
  };
  const keys = (event: KeyboardEvent) => {
    const act = { ' ': turn, ArrowLeft: () => by(-A_FRAME), ArrowRight: () => by(A_FRAME) }[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };
  const position = ((shown.value ?? paper.begins) - paper.begins) / 1e6;
  const part = (seconds: number) => `${length.value ? (100 * seconds) / length.value : 0}%`;
  return (
    <>
      <video
        ref={video}
        src={paper.href}
        muted
        playsInline
        preload="auto"
        tabIndex={0}
        aria-label="Video of the browser; space plays and stops, arrows go by pictures"
        onClick={turn}
        onKeyDown={keys}
        onLoadedMetadata={(e) => (length.value = e.currentTarget.duration)}
        onTimeUpdate={follow}
        onSeeked={follow}
        onPlay={() => (playing.value = true)}
        onPause={() => (playing.value = false)}
      />
      <div class="scale">
        <input
          type="range"
          min={0}
          max={length.value}
          step="any"
          value={position}
          aria-label="Place in the video"
          onInput={(e) => video.current && (video.current.currentTime = e.currentTarget.valueAsNumber)}
        />
        <div class="ticks" aria-hidden="true">
          {ticks.map((at, index) => (
            <i key={index} style={{ left: part((at - paper.begins) / 1e6) }} />
          ))}
        </div>
      </div>
      <div class="film-keys">
        <button class="quiet play" onClick={turn}>
          {playing.value ? 'stop' : 'play'}
        </button>
        <button class="quiet" onClick={() => by(-A_FRAME)} title="A picture back (key ←)">
          ‹
        </button>
        <button class="quiet" onClick={() => by(A_FRAME)} title="A picture on (key →)">
          ›
        </button>
        <label>
          <span class="unseen">Speed</span>
          <select
            value={speed.value}
            onChange={(e) => {
              speed.value = Number(e.currentTarget.value);
              if (video.current) video.current.playbackRate = speed.value;
            }}
          >
            {SPEEDS.map((one) => (
              <option key={one} value={one}>
                {one} ×
              </option>
            ))}
          </select>
        </label>
        <button class="quiet" onClick={() => void video.current?.requestFullscreen()}>
          large
        </button>
        <a class="dim" href={paper.href} target="_blank" rel="noopener">
          the file
        </a>
      </div>
    </>
  );
}

function Strip({ pictures }: { pictures: Timed[] }) {
  const want = wanted.value;
  useEffect(() => {
    if (want) shown.value = pictures[at(pictures, want.at)]!.begins;
  }, [want]);
  const now = at(pictures, shown.value ?? pictures[0]!.begins);
  return (
    <>
      <img src={pictures[now]!.href} alt={pictures[now]!.name} />
      <div class="strip-pictures" role="group" aria-label="Pictures">
        {pictures.map((picture, index) => (
          <button key={index} aria-pressed={index === now} title={picture.name} onClick={() => (shown.value = picture.begins)}>
            <img src={picture.href} alt={picture.name} loading="lazy" />
          </button>
        ))}
      </div>
    </>
  );
}

/** The last picture that was shown by then. */
function at(pictures: { begins: number }[], moment: number): number {
  return Math.max(0, pictures.findLastIndex((picture) => picture.begins <= moment));
}

/** The place in `moments`, which ascend, of the last that was reached when the film shows what it shows. */
export function reached(moments: number[]) {
  return computed(() => {
    const now = shown.value;
    // Browsers round the time of a picture; a line that it belongs to must not be missed by that.
    return now === undefined ? -1 : moments.findLastIndex((moment) => moment <= now + 2_000);
  });
}
