package dev.verbale.browser;

import java.lang.ref.WeakReference;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.function.Function;

/**
 * The session of each driver or page: whoever asks first makes it. Neither a driver nor its session is held by this; a session
 * lives as long as somebody watches with it, a test has it registered, or its connection to the browser is open.
 *
 * @param <D> the drivers or pages, told apart as objects
 * @param <S> their sessions
 * @since 0.2.0
 */
public final class BrowserSessions<D, S extends BrowserSession> {

    private record Known<D, S>(WeakReference<D> driver, WeakReference<S> session) {}

    private final Function<D, S> making;
    private final List<Known<D, S>> known = new ArrayList<>(); // a handful: browsers are heavy

    /** @param making makes the session of a driver that has none */
    public BrowserSessions(Function<D, S> making) {
        this.making = making;
    }

    /** The one of {@code driver}. */
    public synchronized S of(D driver) {
        for (Iterator<Known<D, S>> all = known.iterator(); all.hasNext(); ) {
            Known<D, S> one = all.next();
            D other = one.driver().get();
            S session = one.session().get();
            if (other == null || session == null) all.remove();
            else if (other == driver) return session;
        }
        S fresh = making.apply(driver);
        known.add(new Known<>(new WeakReference<>(driver), new WeakReference<>(fresh)));
        return fresh;
    }
}
