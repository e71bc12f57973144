// What the browser showed: a video, or single frames with their times. It stands beside the entries and follows them both
// ways: a line that is chosen seeks the video, and while the video plays its moment is marked among the lines.
import { useSignal } from '@preact/signals';
import { useEffect, useRef } from 'preact/hooks';
import { Download } from '../attachments/download';
import { address } from '../data/packed';
import { playing, shown, wanted, type Recording, type Timed } from './playback';
import { offset } from '../words/text';
import { t } from '../words/texts';

const SPEEDS = [0.25, 0.5, 1, 2];
const A_FRAME = 0.04;

interface Props {
  recording: Recording;
  /** The moment that the times are counted from. */
  start: number;
  /** What happened at the moment that is shown. */
  caption: string;
  /** The moments at which something happened. */
  ticks: number[];
}

export function RecordingPlayer({ recording, start, caption, ticks }: Props) {
  useEffect(() => {
    shown.value = undefined;
    wanted.value = undefined;
    return () => {
      shown.value = undefined;
      playing.value = false;
    };
  }, [recording]);
  return (
    <figure class="video">
      {'video' in recording ? <Video attachment={recording.video} poster={recording.poster} ticks={ticks} /> : <Frames frames={recording.frames} />}
      <figcaption>
        <span class="time">{offset((shown.value ?? ('video' in recording ? recording.video.begins : recording.frames[0]!.begins)) - start)}</span>
        <span class="caption">{caption}</span>
        {'video' in recording && recording.video.captions && (
          <Download href={recording.video.captions} label={t('captions')} />
        )}
      </figcaption>
    </figure>
  );
}

function Video({ attachment, poster, ticks }: { attachment: Timed; poster: string | undefined; ticks: number[] }) {
  const video = useRef<HTMLVideoElement>(null);
  const length = useSignal(0);
  const speed = useSignal(1);
  const want = wanted.value;
  useEffect(() => {
    if (want && video.current) video.current.currentTime = Math.max(0, (want.at - attachment.begins) / 1e6);
  }, [want]);
  const follow = () => {
    if (video.current) shown.value = attachment.begins + video.current.currentTime * 1e6;
  };
  const by = (seconds: number) => {
    if (video.current) video.current.currentTime += seconds;
  };
  const toggle = () => {
    if (video.current?.paused) void video.current.play();
    else video.current?.pause();
  };
  const keys = (event: KeyboardEvent) => {
    const act = { ' ': toggle, ArrowLeft: () => by(-A_FRAME), ArrowRight: () => by(A_FRAME) }[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };
  const position = ((shown.value ?? attachment.begins) - attachment.begins) / 1e6;
  const part = (seconds: number) => `${length.value ? (100 * seconds) / length.value : 0}%`;
  return (
    <>
      <video
        ref={video}
        src={address(attachment.href)}
        {...(poster && { poster: address(poster) })}
        muted
        playsInline
        preload="auto"
        tabIndex={0}
        aria-label={t('Video of the browser; space plays and pauses, arrows go frame by frame')}
        onClick={toggle}
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
          aria-label={t('Position in the video')}
          onInput={(e) => video.current && (video.current.currentTime = e.currentTarget.valueAsNumber)}
        />
        <div class="ticks" aria-hidden="true">
          {ticks.map((at, index) => (
            <i key={index} style={{ left: part((at - attachment.begins) / 1e6) }} />
          ))}
        </div>
      </div>
      <div class="video-keys">
        <button class="quiet play" onClick={toggle}>
          {playing.value ? t('pause') : t('play')}
        </button>
        <button class="quiet" onClick={() => by(-A_FRAME)} title={t('A frame back (key ←)')}>
          ‹
        </button>
        <button class="quiet" onClick={() => by(A_FRAME)} title={t('A frame on (key →)')}>
          ›
        </button>
        <label>
          <span class="visually-hidden">{t('Speed')}</span>
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
          {t('enlarge')}
        </button>
        <Download href={attachment.href} />
      </div>
    </>
  );
}

function Frames({ frames }: { frames: Timed[] }) {
  const want = wanted.value;
  useEffect(() => {
    if (want) shown.value = frames[at(frames, want.at)]!.begins;
  }, [want]);
  const now = at(frames, shown.value ?? frames[0]!.begins);
  return (
    <>
      <img src={address(frames[now]!.href)} alt={frames[now]!.name} />
      <div class="strip-images" role="group" aria-label={t('Frames')}>
        {frames.map((frame, index) => (
          <button key={index} aria-pressed={index === now} title={frame.name} onClick={() => (shown.value = frame.begins)}>
            <img src={address(frame.href)} alt={frame.name} loading="lazy" />
          </button>
        ))}
      </div>
    </>
  );
}

/** The last frame that was shown by then. */
function at(frames: { begins: number }[], moment: number): number {
  return Math.max(0, frames.findLastIndex((frame) => frame.begins <= moment));
}

