package dev.verbale.recorder;

/**
 * A step that has begun. Exactly one of its ends is called, on the thread that began it; a second call does nothing but
 * leave a problem in the run.
 */
public interface Step {
    /** It did what it should. */
    void passed();

    /** It threw {@code failure}; evidence is taken now, unless an inner step took it for this failure. */
    void failed(Throwable failure);
}
