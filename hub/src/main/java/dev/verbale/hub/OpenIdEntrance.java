package dev.verbale.hub;

import dev.verbale.hub.OpenIdProvider.Begun;
import dev.verbale.hub.OpenIdProvider.NotKnown;
import dev.verbale.hub.Uploads.Refused;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;

/** Lets people enter whom a provider of OpenID Connect knows. What was begun is in a cookie: any hub goes on with it. */
final class OpenIdEntrance {

    static final String BEGIN = "/enter/openid";
    static final String BACK = "/enter/openid/back";

    private static final String COOKIE = "verbale-hub-entering";
    private static final String MINUTES_10 = "600";
    private static final int PARTS = 4;

    /** Where somebody wanted to go: a path below the hub, and nothing that a browser takes for another server. */
    private static final Pattern OWN_PATH = Pattern.compile("[A-Za-z0-9._~-][A-Za-z0-9._~/%-]{0,999}");

    private final OpenIdProvider provider;
    private final People people;
    private final Sessions sessions;
    private final Supplier<URI> address;

    /** @param address where people find the hub */
    OpenIdEntrance(OpenIdProvider provider, People people, Sessions sessions, Supplier<URI> address) {
        this.provider = provider;
        this.people = people;
        this.sessions = sessions;
        this.address = address;
    }

    /** Sends somebody to the provider. */
    void begin(Request request, Response response) throws IOException, Refused {
        Begun begun = Begun.anew();
        String wanted = Form.parameter(request, "to");
        String to = OWN_PATH.matcher(wanted).matches() ? wanted : "";
        String kept = String.join(".", begun.state(), begun.nonce(), begun.verifier(), encoded(to));
        URI there;
        try {
            there = provider.address(begun, back());
        } catch (IOException away) {
            throw new Refused(503, "the provider that knows people does not answer");
        }
        // Lax: what comes back is another site's redirect.
        Cookies.set(request, response, COOKIE, kept, "Lax", MINUTES_10);
        response.getHeaders().put("Location", there.toString());
        HubAnswer.nothing(response, 303);
    }

    /** Somebody comes back. The page that they get goes on by itself: a cookie of this site alone is not sent on another site's redirect. */
    void back(Request request, Response response) throws IOException, Refused {
        String[] kept = Cookies.get(request, COOKIE).orElse("").split("\\.", -1);
        Cookies.set(request, response, COOKIE, "", "Lax", "0");
        String state = Form.parameter(request, "state");
        if (kept.length != PARTS || !isSame(kept[0], state))
            throw new Refused(403, "this was not begun in this browser, or longer than ten minutes ago: enter again");
        String code = Form.parameter(request, "code");
        if (code.isEmpty()) {
            enterAgain(response, "The provider let nobody in: " + Form.parameter(request, "error") + ".");
            return;
        }
        String name;
        try {
            name = provider.name(new Begun(kept[0], kept[1], kept[2]), code, back());
        } catch (NotKnown unknown) {
            enterAgain(response, String.valueOf(unknown.getMessage()));
            return;
        } catch (IOException away) {
            throw new Refused(503, "the provider that knows people does not answer");
        }
        Entrance.let(request, response, sessions.begin(people.of(name)));
        HubPages.guard(response);
        HubAnswer.html(response, 200, HubPages.entered(name, address.get() + decoded(kept[3])));
    }

    private static void enterAgain(Response response, String why) throws IOException {
        HubPages.guard(response);
        HubAnswer.html(response, 403, HubPages.enter(why, BACK, true));
    }

    private URI back() {
        return address.get().resolve(BACK.substring(1));
    }

    /** Without telling by the time it takes how much of it is right. */
    private static boolean isSame(String one, String other) {
        return !one.isEmpty()
                && MessageDigest.isEqual(one.getBytes(StandardCharsets.UTF_8), other.getBytes(StandardCharsets.UTF_8));
    }

    private static String encoded(String text) {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(text.getBytes(StandardCharsets.UTF_8));
    }

    private static String decoded(String text) {
        String path;
        try {
            path = new String(Base64.getUrlDecoder().decode(text), StandardCharsets.UTF_8);
        } catch (IllegalArgumentException broken) {
            path = "";
        }
        return Optional.of(path).filter(OWN_PATH.asMatchPredicate()).orElse("");
    }
}
