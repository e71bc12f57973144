// What the video of a test shows, shared by the video and the lines beside it.
import { computed, signal } from '@preact/signals';
import { address } from '../data/packed';
import { attachmentsIn } from '../data/inside';
import type { Attachment, Entry } from '../data/types';

const VIDEOS = ['video/webm', 'video/mp4'];

export type Timed = Attachment & { begins: number; href: string };

/** A video, or frames of one that nobody encoded. */
export type Recording = { video: Timed; /** What is shown before anybody plays it: it begins with an empty window. */ poster?: string } | { frames: Timed[] };

/** The moment that is shown, in microseconds of the run; undefined while nobody looked at it. */
export const shown = signal<number | undefined>(undefined);

/** Where a line wants it to be. */
export const wanted = signal<{ at: number } | undefined>(undefined);

export const playing = signal(false);

/** Brings the video to a moment of the run. */
export function seek(at: number): void {
  wanted.value = { at };
}

/** The recording among a test's attachments, if there is one: its last video, or its frames. */
export function recordingOf(entries: Entry[]): Recording | undefined {
  const attachments = timed(entries);
  const video = attachments.findLast((attachment) => attachment.kind === 'video' && VIDEOS.includes(attachment.mediaType));
  const poster = attachmentsIn(entries).findLast((one) => one.kind === 'screenshot')?.href;
  if (video) return poster ? { video, poster } : { video };
  const frames = attachments.filter((attachment) => attachment.kind === 'frames').toSorted((a, b) => a.begins - b.begins);
  return frames.length > 0 ? { frames } : undefined;
}

function timed(entries: Entry[]): Timed[] {
  return attachmentsIn(entries).flatMap((one) => (one.href && one.begins !== undefined && address(one.href) ? [{ ...one, href: one.href, begins: one.begins }] : []));
}

/** The position in `moments`, which ascend, of the last that was reached when the video shows what it shows. */
export function reached(moments: number[]) {
  return computed(() => {
    const now = shown.value;
    // Browsers round the time of a frame; a line that it belongs to must not be missed by that.
    return now === undefined ? -1 : moments.findLastIndex((moment) => moment <= now + 2_000);
  });
}
