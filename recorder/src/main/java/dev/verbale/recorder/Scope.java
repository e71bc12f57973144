package dev.verbale.recorder;

/**
 * The run, a container, a test or a step: what lines can belong to. Made by the {@link Recorder}; to everybody else only
 * a token to hand back.
 */
public interface Scope {
    /** The id in the journal; 0 for the run. */
    int id();
}
