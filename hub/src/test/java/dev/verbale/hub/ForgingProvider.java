package dev.verbale.hub;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.JWSHeader;
import com.nimbusds.jose.crypto.MACSigner;
import com.nimbusds.jose.crypto.RSASSASigner;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jose.jwk.RSAKey;
import com.nimbusds.jose.jwk.gen.RSAKeyGenerator;
import com.nimbusds.jwt.JWT;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.PlainJWT;
import com.nimbusds.jwt.SignedJWT;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Date;
import java.util.Map;
import java.util.TreeMap;
import org.eclipse.jetty.util.Fields;
import org.eclipse.jetty.util.UrlEncoded;

/** A provider of OpenID Connect, or who stands between it and the hub, whose tokens are not what they should be. */
final class ForgingProvider implements AutoCloseable {

    /** Makes a token of claims that would be right. */
    interface Forgery {
        JWT of(JWTClaimsSet.Builder claims) throws JOSEException;
    }

    private static final RSAKey KEY = key("garden");
    private static final RSAKey ANOTHER = key("garden");

    /** By what is wrong with each. */
    static final Map<String, Forgery> FORGERIES = new TreeMap<>(Map.of(
            "nobody signed it", claims -> new PlainJWT(claims.build()),
            "another key signed it", claims -> signed(ANOTHER, claims),
            "the client's secret signed it", ForgingProvider::signedWithSecret,
            "it is for another client", claims -> signed(KEY, claims.audience("another")),
            "another issuer made it", claims -> signed(KEY, claims.issuer("https://weeds.example")),
            "it is over",
                    claims -> signed(
                            KEY, claims.expirationTime(Date.from(Instant.now().minusSeconds(600)))),
            "it never ends", claims -> signed(KEY, claims.expirationTime(null)),
            "it is of another way in", claims -> signed(KEY, claims.claim("nonce", "weeds")),
            "it is of no way in", claims -> signed(KEY, claims.claim("nonce", null))));

    private final HttpServer server;
    private volatile String nonce = "";
    volatile Forgery next = claims -> signed(KEY, claims);

    ForgingProvider() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/.well-known/openid-configuration", exchange -> json(exchange, """
                {"issuer":"%1$s","authorization_endpoint":"%1$s/authorize","token_endpoint":"%1$s/token","jwks_uri":"%1$s/keys",
                 "subject_types_supported":["public"],"response_types_supported":["code"],
                 "id_token_signing_alg_values_supported":["RS256"]}""".formatted(issuer())));
        server.createContext("/keys", exchange -> json(exchange, new JWKSet(KEY.toPublicJWK()).toString()));
        server.createContext("/authorize", exchange -> {
            var query = new Fields();
            UrlEncoded.decodeUtf8To(exchange.getRequestURI().getRawQuery(), query);
            nonce = query.getValue("nonce");
            exchange.getResponseHeaders()
                    .set("Location", query.getValue("redirect_uri") + "?code=1&state=" + query.getValue("state"));
            exchange.sendResponseHeaders(302, -1);
            exchange.close();
        });
        server.createContext("/token", exchange -> {
            try {
                json(
                        exchange,
                        "{\"access_token\":\"x\",\"token_type\":\"Bearer\",\"id_token\":\""
                                + next.of(right()).serialize() + "\"}");
            } catch (JOSEException broken) {
                throw new IOException(broken);
            }
        });
        server.start();
    }

    private static RSAKey key(String id) {
        try {
            return new RSAKeyGenerator(2048).keyID(id).generate();
        } catch (JOSEException broken) {
            throw new IllegalStateException(broken);
        }
    }

    private JWTClaimsSet.Builder right() {
        return new JWTClaimsSet.Builder()
                .issuer(issuer().toString())
                .subject("4711")
                .audience("verbale-hub")
                .claim("nonce", nonce)
                .claim("email", "ada@orto.example")
                .claim("email_verified", true)
                .issueTime(new Date())
                .expirationTime(Date.from(Instant.now().plusSeconds(60)));
    }

    private static JWT signed(RSAKey key, JWTClaimsSet.Builder claims) throws JOSEException {
        var token = new SignedJWT(
                new JWSHeader.Builder(JWSAlgorithm.RS256).keyID(key.getKeyID()).build(), claims.build());
        token.sign(new RSASSASigner(key));
        return token;
    }

    private static JWT signedWithSecret(JWTClaimsSet.Builder claims) throws JOSEException {
        var token = new SignedJWT(new JWSHeader(JWSAlgorithm.HS256), claims.build());
        token.sign(new MACSigner("a-secret-that-is-long-enough-to-sign"));
        return token;
    }

    private static void json(HttpExchange exchange, String text) throws IOException {
        byte[] body = text.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().set("Content-Type", "application/json");
        exchange.sendResponseHeaders(200, body.length);
        exchange.getResponseBody().write(body);
        exchange.close();
    }

    URI issuer() {
        return URI.create("http://127.0.0.1:" + server.getAddress().getPort());
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
