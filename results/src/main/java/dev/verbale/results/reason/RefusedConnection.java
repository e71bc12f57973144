package dev.verbale.results.reason;

import dev.verbale.results.reason.ThrownChain.Thrown;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * That nobody listened: whatever client says it, and in whatever words. The port is left out, for it is another one in every
 * run of many suites; so is a loopback address.
 *
 * @param protocol {@code http} or {@code sql}: two servers of one machine are two reasons
 * @param host empty where nobody said it, or it is this machine
 */
record RefusedConnection(String protocol, String host) {

    private static final Pattern SAYS_SO = Pattern.compile(
            "(?i)connection refused|connect(?:ion)? to \\S+ (?:was )?refused|ECONNREFUSED|ERR_CONNECTION_REFUSED|failed to connect to");
    private static final Pattern HOST = Pattern.compile(
            "(?i)(?:https?://|connect(?:ion)? to |to |at )(?:https?://)?([a-z0-9][a-z0-9.-]*)(?:/[\\d.:]+)?:\\d+");

    static @org.jspecify.annotations.Nullable RefusedConnection of(ThrownChain chain) {
        boolean refused = false;
        boolean sql = false;
        String host = "";
        for (Thrown one : chain.thrown()) {
            String message = one.message() == null ? "" : one.message();
            refused |= SAYS_SO.matcher(message).find() || isConnect(one, message);
            sql |= one.type().contains("SQL")
                    || one.type().startsWith("org.postgresql.")
                    || one.type().startsWith("org.h2.");
            Matcher named = HOST.matcher(message);
            if (host.isEmpty() && named.find()) host = named.group(1);
        }
        return refused ? new RefusedConnection(sql ? "sql" : "http", isLoopback(host) ? "" : host) : null;
    }

    /** The JDK's own client says nothing but the name of the class. */
    private static boolean isConnect(Thrown one, String message) {
        return one.type().equals("java.net.ConnectException")
                && !message.toLowerCase(java.util.Locale.ROOT).contains("timed out");
    }

    static boolean isLoopback(String host) {
        return host.equals("localhost") || host.startsWith("127.") || host.equals("0.0.0.0") || host.equals("::1");
    }

    String key() {
        return "refused|" + protocol + "|" + host;
    }

    String title() {
        String what = protocol.equals("sql") ? "the database" : "the server";
        return host.isEmpty() ? "Connection refused: " + what + " is not listening" : "Connection refused by " + host;
    }
}
