// A moment in the margin; where there is a video, a click seeks it there.
import { seek } from './playback';
import { offset } from './text';

export function Moment({ at, start, recorded }: { at: number; start: number; recorded: boolean }) {
  const title = `${at - start} µs`;
  if (!recorded) return <time title={title}>{offset(at - start)}</time>;
  return (
    <time title={title}>
      <button class="seek" onClick={() => seek(at)} title={`${title}; shows this moment in the video`}>
        {offset(at - start)}
      </button>
    </time>
  );
}
