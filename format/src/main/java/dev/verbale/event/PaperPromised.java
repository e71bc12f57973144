package dev.verbale.event;

/**
 * A paper was promised for later, such as a video that is finished when its browser closes.
 *
 * @param in the step, test or container it belongs to, or 0 for the run
 * @param id unique in the journal; the {@link PaperKept} that keeps the promise names it
 */
public record PaperPromised(long at, int in, int id, String name, String kind) implements Event {}
