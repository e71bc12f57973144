// A moment in the margin; where there is a video, a click seeks it there.
import { seek } from './playback';
import { offset } from '../words/text';
import { t } from '../words/texts';

export function Moment({ at, start, recorded }: { at: number; start: number; recorded: boolean }) {
  if (!recorded) return <time>{offset(at - start)}</time>;
  return (
    <time>
      <button class="seek" onClick={() => seek(at)} title={t('shows this moment in the video')}>
        {offset(at - start)}
      </button>
    </time>
  );
}
