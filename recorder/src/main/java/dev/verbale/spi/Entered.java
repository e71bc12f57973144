package dev.verbale.spi;

/**
 * A scope that a thread entered.
 *
 * @since 0.2.0
 */
public interface Entered extends AutoCloseable {

    /** Of a thread that stayed where it was. */
    Entered NOWHERE = new Entered() {
        @Override
        public void close() {}
    };

    /** Puts back the scope that was current before. On the thread that entered. */
    @Override
    void close();
}
