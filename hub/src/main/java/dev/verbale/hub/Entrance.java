package dev.verbale.hub;

import dev.verbale.hub.Uploads.Refused;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.jspecify.annotations.Nullable;

/** Who somebody is: a program by the token in each request, a person by a session, which begins with a token. */
final class Entrance {

    static final String PATH = "/enter";
    static final String LEAVE = "/leave";

    static final String COOKIE = "verbale-hub";
    private static final String BEARER = "Bearer ";
    private static final int MAX_WRONG = 20;
    private static final int MAX_ADDRESSES = 10_000;
    private static final long FORGOTTEN_AFTER = TimeUnit.MINUTES.toNanos(1);

    private final Tokens tokens;
    private final People people;
    private final Sessions sessions;
    private final HubOptions.@Nullable Proxy proxy;
    private final @Nullable String publicOrigin;
    /** Who said wrong tokens, and how often: whoever guesses has to wait. */
    private final Map<String, Wrong> wrong = new ConcurrentHashMap<>();

    private record Wrong(int times, long last) {}

    Entrance(Tokens tokens, People people, Sessions sessions, HubOptions options) {
        this.sessions = sessions;
        this.tokens = tokens;
        this.people = people;
        this.proxy = options.proxy();
        URI address = options.publicAddress();
        this.publicOrigin = address == null ? null : address.getScheme() + "://" + address.getRawAuthority();
    }

    /**
     * Who asks; empty for nobody.
     *
     * @throws Refused where it is the wrong token
     */
    Optional<Access> of(Request request) throws Refused {
        String authorization = request.getHeaders().get("Authorization");
        if (authorization == null) {
            Optional<Access> person = person(request);
            return person.isPresent() ? person : Cookies.get(request, COOKIE).flatMap(sessions::of);
        }
        return Optional.of(
                known(request, authorization.startsWith(BEARER) ? authorization.substring(BEARER.length()) : ""));
    }

    /** Whom the proxy names. */
    private Optional<Access> person(Request request) {
        if (proxy == null
                || !(request.getConnectionMetaData().getRemoteSocketAddress() instanceof InetSocketAddress from))
            return Optional.empty();
        String name = request.getHeaders().get(proxy.header());
        return name != null && People.isName(name) && proxy.addresses().contains(from.getAddress())
                ? Optional.of(people.of(name.strip()))
                : Optional.empty();
    }

    private Access known(Request request, String token) throws Refused {
        String from = Request.getRemoteAddr(request);
        Wrong before = wrong.get(from);
        Optional<Access> access = tokens.of(token.strip());
        if (access.isPresent()) return access.get(); // whoever else guesses behind the same proxy
        int times = before != null && System.nanoTime() - before.last() < FORGOTTEN_AFTER ? before.times() : 0;
        if (times >= MAX_WRONG) throw new Refused(429, "too many wrong tokens from here; wait a minute");
        if (wrong.size() >= MAX_ADDRESSES) wrong.clear();
        wrong.put(from, new Wrong(times + 1, System.nanoTime()));
        throw new Refused(401, "there is no such token, or it was ended");
    }

    /**
     * Refuses what another site has a browser ask, which says whose page it is of. The hub's own is that of its public address, or of the
     * host that is asked: a proxy may hand that on or not.
     */
    void refuseForeign(Request request) throws Refused {
        String origin = request.getHeaders().get("Origin");
        if (origin == null || origin.equals(publicOrigin)) return;
        if (!origin.replaceFirst("^https?://", "").equals(request.getHeaders().get("Host")))
            throw new Refused(403, "the form has to be this hub's own");
    }

    /** Begins a session with the token of a form. */
    void enter(Request request, Response response) throws IOException, Refused {
        refuseForeign(request);
        Access access = known(request, Form.text(Form.of(request), "token"));
        let(request, response, sessions.begin(access));
        response.getHeaders().put("Location", "./");
        HubAnswer.nothing(response, 303);
    }

    /** Gives a session to a browser. */
    static void let(Request request, Response response, String session) {
        Cookies.set(request, response, COOKIE, session, "Strict", String.valueOf(Sessions.MONTH.toSeconds()));
    }

    /** Ends the session. */
    void leave(Request request, Response response) throws IOException, Refused {
        refuseForeign(request);
        Cookies.get(request, COOKIE).ifPresent(sessions::end);
        Cookies.set(request, response, COOKIE, "", "Strict", "0");
        response.getHeaders().put("Location", "./");
        HubAnswer.nothing(response, 303);
    }
}
