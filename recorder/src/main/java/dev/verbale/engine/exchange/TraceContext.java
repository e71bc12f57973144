package dev.verbale.engine.exchange;

import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Trace;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Makes and reads the header by which a request's traces are found.
 *
 * @see <a href="https://www.w3.org/TR/trace-context/#traceparent-header">W3C Trace Context, traceparent</a>
 */
public final class TraceContext {

    private static final String HEADER = "traceparent";
    private static final Pattern VALUE = Pattern.compile("[0-9a-f]{2}-([0-9a-f]{32})-[0-9a-f]{16}-[0-9a-f]{2}.*");
    private static final String NONE = "0".repeat(32);

    private final boolean send;
    private final String address;

    /**
     * @param address of a trace, with {@code $0} where its id belongs; empty where there is none
     */
    public TraceContext(boolean send, String address) {
        this.send = send;
        this.address = address;
    }

    /** A trace of its own for each request, so that one is found and not a test's thousand. Version 00, sampled. */
    @Nullable
    public String header() {
        if (!send) return null;
        return "00-" + hex() + "-" + hex().substring(16) + "-01";
    }

    private static String hex() {
        return UUID.randomUUID().toString().replace("-", "");
    }

    /** What a request with these headers said, whoever put it there. */
    @Nullable
    public Trace of(List<Header> headers) {
        for (Header header : headers) {
            if (!header.name().toLowerCase(Locale.ROOT).equals(HEADER)) continue;
            Matcher value = VALUE.matcher(header.value().strip());
            if (!value.matches() || value.group(1).equals(NONE)) return null;
            String id = value.group(1);
            return new Trace(id, address.isEmpty() ? null : address.replace("$0", id));
        }
        return null;
    }
}
