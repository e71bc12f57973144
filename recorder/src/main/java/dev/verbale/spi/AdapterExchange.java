package dev.verbale.spi;

import dev.verbale.Exchange;

/**
 * An exchange that an adapter began, with the calls that only the adapter of a client needs. Here each of them does nothing, see
 * {@link Exchange}.
 *
 * @since 0.2.0
 */
public interface AdapterExchange extends Exchange {

    /** One that is not recorded. */
    AdapterExchange NONE = new AdapterExchange() {};

    @Override
    default AdapterExchange client(String name) {
        return this;
    }

    @Override
    default AdapterExchange url(String url) {
        return this;
    }

    /** Forgets the headers recorded so far. For a client that shows them as they are sent only after some were recorded. */
    default AdapterExchange clearRequestHeaders() {
        return this;
    }

    /**
     * The next request of the same call: a redirect that was followed, or one that was sent again. For a client that reports
     * of these only when all is over: of how long each of them took nothing is said then.
     */
    default AdapterExchange next(String method, String url) {
        return this;
    }

    /**
     * Has {@code action} called where the test, or whatever it belongs to, ends before the exchange does: the last moment to read
     * what is there.
     */
    default AdapterExchange onTestEnd(Runnable action) {
        return this;
    }
}
