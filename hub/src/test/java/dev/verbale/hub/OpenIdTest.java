package dev.verbale.hub;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import no.nav.security.mock.oauth2.MockOAuth2Server;
import no.nav.security.mock.oauth2.token.DefaultOAuth2TokenCallback;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** People enter whom a real provider of OpenID Connect knows, and nobody else. */
class OpenIdTest {

    private static final String ADA = "ada@orto.example";
    private static final String SECRET = "a-secret-of-the-client";

    @TempDir
    Path root;

    private final MockOAuth2Server provider = new MockOAuth2Server();
    private HubFixture hub;

    @BeforeEach
    void begin() throws Exception {
        provider.start();
        hub = new HubFixture(
                root.resolve("server"),
                null,
                options -> options.withOpenId(
                        new HubOptions.OpenId(provider.issuerUrl("garden").uri(), "verbale-hub", SECRET, "email")));
        hub.token("orto", Role.READ, "begins the project");
        HttpResponse<String> let =
                hub.api(HubFixture.ADMINISTER, "POST", "api/v1/people?name=" + ADA + "&role=read&project=orto", "");
        assertThat(let.statusCode()).isEqualTo(204);
    }

    @AfterEach
    void end() {
        hub.close();
        provider.shutdown();
    }

    /** What the provider says of whoever comes next. */
    private void next(long seconds, Map<String, Object> claims) {
        provider.enqueueCallback(
                new DefaultOAuth2TokenCallback("garden", "4711", "JWT", List.of("verbale-hub"), claims, seconds));
    }

    private void nextIsAda() {
        next(60, Map.of("email", ADA, "email_verified", true));
    }

    private HttpResponse<String> get(URI address, String cookie) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(address);
        if (!cookie.isEmpty()) request.header("Cookie", cookie);
        return hub.client.send(request.build(), BodyHandlers.ofString());
    }

    private static String cookie(HttpResponse<String> answer, String name) {
        return answer.headers().allValues("Set-Cookie").stream()
                .filter(one -> one.startsWith(name + "="))
                .map(one -> one.replaceFirst(";.*", ""))
                .findFirst()
                .orElse("");
    }

    /** A browser on its way: what the hub lets it keep, and where the provider sends it then. */
    private record OnTheWay(String cookie, URI back) {}

    private OnTheWay begun(String to) throws Exception {
        HttpResponse<String> begun = get(hub.address().resolve("enter/openid?to=" + to), "");
        assertThat(begun.statusCode()).isEqualTo(303);
        URI asked = URI.create(begun.headers().firstValue("Location").orElseThrow());
        assertThat(asked.getQuery())
                .contains("response_type=code", "code_challenge_method=S256", "state=", "nonce=")
                .doesNotContain(SECRET);
        assertThat(begun.headers().firstValue("Set-Cookie").orElse("")).contains("HttpOnly", "SameSite=Lax");
        HttpResponse<String> known = get(asked, "");
        assertThat(known.statusCode()).isEqualTo(302);
        return new OnTheWay(
                cookie(begun, "verbale-hub-entering"),
                URI.create(known.headers().firstValue("Location").orElseThrow()));
    }

    private HttpResponse<String> entered(String to) throws Exception {
        OnTheWay way = begun(to);
        return get(way.back(), way.cookie());
    }

    @Test
    void a_person_enters_sees_what_they_may_and_leaves() throws Exception {
        nextIsAda();
        HttpResponse<String> entered = entered("projects/orto/");

        String session = cookie(entered, "verbale-hub");
        assertThat(entered.statusCode()).isEqualTo(200);
        assertThat(entered.headers().allValues("Set-Cookie"))
                .anyMatch(one -> one.startsWith("verbale-hub=") && one.contains("SameSite=Strict"))
                .anyMatch(one -> one.startsWith("verbale-hub-entering=;") && one.contains("Max-Age=0"));
        assertThat(entered.body()).contains(ADA, "url=" + hub.address() + "projects/orto/");
        URI front = hub.address();
        assertThat(get(front, session).body()).contains("projects/orto/", "Leave");
        assertThat(get(front.resolve("metrics"), session).statusCode()).isEqualTo(403);

        HttpResponse<String> ended = hub.api(HubFixture.ADMINISTER, "DELETE", "api/v1/people?name=" + ADA, "");
        assertThat(ended.statusCode()).isEqualTo(204);
        assertThat(get(front, session).statusCode())
                .as("sessions end with what a person may")
                .isEqualTo(401);
        nextIsAda();
        String stranger = cookie(entered(""), "verbale-hub");
        assertThat(get(front, stranger).body()).contains("nobody has said what you may see");
        HttpResponse<String> left = hub.api(null, "POST", "leave", "", "Cookie", stranger);
        assertThat(left.statusCode()).isEqualTo(303);
        assertThat(get(front, stranger).statusCode()).isEqualTo(401);
    }

    @Test
    void what_the_provider_does_not_vouch_for_is_nobody() throws Exception {
        next(60, Map.of("email", ADA));
        assertRefused("does not say that it verified");
        next(60, Map.of("email", ADA, "email_verified", false));
        assertRefused("does not say that it verified");
        next(60, Map.of("email_verified", true));
        assertRefused("does not say your email");
        next(60, Map.of("email", "*", "email_verified", true));
        assertRefused("Nobody can be called that");
        next(60, Map.of("email", "x".repeat(300), "email_verified", true));
        assertRefused("Nobody can be called that");
        next(-300, Map.of("email", ADA, "email_verified", true));
        assertRefused("cannot be verified");
    }

    @Test
    void a_token_that_somebody_forged_lets_nobody_in() throws Exception {
        try (var forging = new ForgingProvider()) {
            hub.close();
            hub = new HubFixture(
                    root.resolve("forged"),
                    null,
                    options -> options.withOpenId(new HubOptions.OpenId(
                            forging.issuer(), "verbale-hub", "a-secret-that-is-long-enough-to-sign", "email")));
            assertThat(cookie(entered(""), "verbale-hub"))
                    .as("one that is right")
                    .isNotEmpty();
            for (Map.Entry<String, ForgingProvider.Forgery> forged : ForgingProvider.FORGERIES.entrySet()) {
                forging.next = forged.getValue();
                HttpResponse<String> answer = entered("");
                assertThat(answer.statusCode()).as(forged.getKey()).isEqualTo(403);
                assertThat(answer.body()).as(forged.getKey()).contains("cannot be verified");
                assertThat(cookie(answer, "verbale-hub")).as(forged.getKey()).isEmpty();
            }
        }
    }

    private void assertRefused(String why) throws Exception {
        HttpResponse<String> answer = entered("");
        assertThat(answer.statusCode()).as(why).isEqualTo(403);
        assertThat(answer.body()).contains(why, "Enter with your account");
        assertThat(cookie(answer, "verbale-hub")).isEmpty();
    }

    @Test
    void nobody_goes_on_with_what_another_browser_began_or_twice_or_elsewhere() throws Exception {
        nextIsAda();
        OnTheWay way = begun("");
        assertThat(get(way.back(), "").statusCode()).as("another browser").isEqualTo(403);
        OnTheWay other = begun("");
        assertThat(get(way.back(), other.cookie()).statusCode())
                .as("another state")
                .isEqualTo(403);
        for (String broken :
                List.of("verbale-hub-entering=", "verbale-hub-entering=...", "verbale-hub-entering=a.b.c.d"))
            assertThat(get(way.back(), broken).statusCode()).as(broken).isEqualTo(403);
        assertThat(get(hub.address().resolve("enter/openid/back"), "verbale-hub-entering=...")
                        .statusCode())
                .as("no state is not the state of nobody")
                .isEqualTo(403);
        assertThat(get(way.back(), way.cookie()).statusCode()).isEqualTo(200);
        HttpResponse<String> twice = get(way.back(), way.cookie());
        assertThat(cookie(twice, "verbale-hub")).as("a code is good once").isEmpty();
        String[] kept = way.cookie().split("=", 2)[1].split("\\.");
        String refused = "verbale-hub-entering=" + String.join(".", kept[0], kept[1], kept[2], "");
        HttpResponse<String> error = get(
                hub.address()
                        .resolve("enter/openid/back?state=" + kept[0] + "&error=%3Cscript%3Ealert(1)%3C%2Fscript%3E"),
                refused);
        assertThat(error.statusCode()).isEqualTo(403);
        assertThat(error.body()).contains("&lt;script&gt;").doesNotContain("<script>");
        for (String elsewhere : List.of(
                "//weeds.example", "https://weeds.example", "/\\weeds.example", "javascript:alert(1)", "\"><script>"))
            assertElsewhereIsHere(elsewhere);
    }

    private void assertElsewhereIsHere(String elsewhere) throws Exception {
        nextIsAda();
        HttpResponse<String> entered = entered(URLEncoder.encode(elsewhere, StandardCharsets.UTF_8));
        assertThat(entered.statusCode()).isEqualTo(200);
        assertThat(entered.body())
                .as(elsewhere)
                .contains("url=" + hub.address() + "\"")
                .doesNotContain("weeds", "alert");
    }

    @Test
    void a_provider_that_is_away_or_none_keeps_nobody_out_who_has_a_token() throws Exception {
        for (String issuer : List.of("http://127.0.0.1:1", hub.address().toString())) {
            var other = new HubOptions.OpenId(URI.create(issuer), "verbale-hub", SECRET, "email");
            try (Hub lonely =
                    Hub.start(HubFixture.options(root.resolve("lonely"), 0).withOpenId(other))) {
                for (int i = 0; i < 3; i++)
                    assertThat(get(lonely.address().resolve("enter/openid"), "").statusCode())
                            .isEqualTo(503);
                assertThat(get(lonely.address(), "").body()).contains("Or with a token");
            }
        }
        assertThatThrownBy(() -> new HubOptions.OpenId(URI.create("ftp://x"), "c", "s", "email"))
                .hasMessageContaining("no address of a server");
        assertThat(new HubOptions.OpenId(URI.create("https://x.example"), "c", SECRET, "email").toString())
                .doesNotContain(SECRET);
    }
}
