package dev.verbale.event;

/**
 * An attachment comes later, such as a video that is finished when its browser closes.
 *
 * @param in the step, test or container it belongs to, or 0 for the run
 * @param id unique in the journal; the {@link AttachmentStored} that completes it names it
 * @since 0.2.0
 */
public record AttachmentPending(long at, int in, int id, String name, String kind) implements Event.InScope {}
