package dev.verbale;

/**
 * That an evidence source is asked; ends it before the test, container or run ends that it was registered in.
 *
 * <pre>{@code
 * try (Registration asked = Verbale.register(serverLog)) {
 *     rotaPage.swap(12, 7); // where this fails, the server's log is attached
 * }
 * }</pre>
 *
 * <p>Safe from any thread.
 *
 * @since 0.2.0
 */
public interface Registration extends AutoCloseable {

    /** Of nothing: what was to be registered could not be. */
    Registration NONE = new Registration() {
        @Override
        public void close() {}
    };

    /** The source is asked no more. A second call does nothing; none throws. */
    @Override
    void close();
}
