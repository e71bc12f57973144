package dev.verbale.spi;

/**
 * Hears when this JVM begins to record into its run, and when it is done with it. Found by {@link java.util.ServiceLoader}, for the
 * recorder of this JVM and not for those that are opened beside it.
 *
 * <p>Threads: {@link #opened} on the thread that recorded first, {@link #ended} on one of the JVM's last, when the journal has its last
 * line. Failure: what it throws is a problem of the run, or, at the end, lost. The JVM waits a minute for the end and no longer.
 *
 * @since 0.2.0
 */
public interface RunListener {

    /** Recording begins; {@code context} says where. */
    default void opened(Context context) {}

    /** Nothing more is recorded by this JVM, apart from what threads record that go on regardless. */
    default void ended(Context context) {}
}
