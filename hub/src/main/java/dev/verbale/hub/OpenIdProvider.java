package dev.verbale.hub;

import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.jwk.source.JWKSource;
import com.nimbusds.jose.jwk.source.JWKSourceBuilder;
import com.nimbusds.jose.proc.JWSVerificationKeySelector;
import com.nimbusds.jose.proc.SecurityContext;
import com.nimbusds.jose.util.DefaultResourceRetriever;
import com.nimbusds.oauth2.sdk.AuthorizationCode;
import com.nimbusds.oauth2.sdk.AuthorizationCodeGrant;
import com.nimbusds.oauth2.sdk.GeneralException;
import com.nimbusds.oauth2.sdk.ParseException;
import com.nimbusds.oauth2.sdk.ResponseType;
import com.nimbusds.oauth2.sdk.Scope;
import com.nimbusds.oauth2.sdk.TokenRequest;
import com.nimbusds.oauth2.sdk.TokenResponse;
import com.nimbusds.oauth2.sdk.auth.ClientAuthentication;
import com.nimbusds.oauth2.sdk.auth.ClientAuthenticationMethod;
import com.nimbusds.oauth2.sdk.auth.ClientSecretBasic;
import com.nimbusds.oauth2.sdk.auth.ClientSecretPost;
import com.nimbusds.oauth2.sdk.auth.Secret;
import com.nimbusds.oauth2.sdk.http.HTTPRequest;
import com.nimbusds.oauth2.sdk.id.ClientID;
import com.nimbusds.oauth2.sdk.id.Issuer;
import com.nimbusds.oauth2.sdk.id.State;
import com.nimbusds.oauth2.sdk.pkce.CodeChallengeMethod;
import com.nimbusds.oauth2.sdk.pkce.CodeVerifier;
import com.nimbusds.openid.connect.sdk.AuthenticationRequest;
import com.nimbusds.openid.connect.sdk.Nonce;
import com.nimbusds.openid.connect.sdk.OIDCTokenResponse;
import com.nimbusds.openid.connect.sdk.OIDCTokenResponseParser;
import com.nimbusds.openid.connect.sdk.claims.ClaimsSet;
import com.nimbusds.openid.connect.sdk.op.OIDCProviderMetadata;
import com.nimbusds.openid.connect.sdk.validators.IDTokenValidator;
import java.io.IOException;
import java.net.URI;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;

/**
 * A provider of OpenID Connect, asked by the authorization code flow with PKCE.
 *
 * @see <a href="https://openid.net/specs/openid-connect-core-1_0.html#CodeFlowAuth">OpenID Connect Core 1.0, 3.1</a>
 * @see <a href="https://www.rfc-editor.org/rfc/rfc7636">RFC 7636</a>
 */
final class OpenIdProvider {

    private static final int PATIENCE_MILLIS = 10_000;
    private static final long RESTS_NANOS = TimeUnit.SECONDS.toNanos(2);
    private static final int LARGEST_KEYS = 1 << 20;

    /** Of a public key alone: the client's secret is no key. */
    private static final Set<JWSAlgorithm> ALGORITHMS = Set.of(
            JWSAlgorithm.RS256,
            JWSAlgorithm.RS384,
            JWSAlgorithm.RS512,
            JWSAlgorithm.PS256,
            JWSAlgorithm.PS384,
            JWSAlgorithm.PS512,
            JWSAlgorithm.ES256,
            JWSAlgorithm.ES384,
            JWSAlgorithm.ES512);

    private final HubOptions.OpenId options;
    private final AtomicBoolean isAsked = new AtomicBoolean();
    private volatile @Nullable Known known;
    private volatile long askedAgain = System.nanoTime();

    /** What the provider says of itself, and how its tokens are verified. */
    private record Known(OIDCProviderMetadata metadata, IDTokenValidator validator) {}

    /** Why nobody enters, in a sentence for them. */
    static final class NotKnown extends Exception {
        private static final long serialVersionUID = 1;

        NotKnown(String why) {
            super(why);
        }
    }

    /**
     * A way in that somebody has begun: their browser keeps it until they come back.
     *
     * @param verifier of which the provider has the hash
     */
    record Begun(String state, String nonce, String verifier) {

        static Begun anew() {
            return new Begun(new State().getValue(), new Nonce().getValue(), new CodeVerifier().getValue());
        }
    }

    OpenIdProvider(HubOptions.OpenId options) {
        this.options = options;
    }

    /**
     * Where the provider asks somebody who they are.
     *
     * @param back where it sends them then
     * @throws IOException where it does not answer
     */
    URI address(Begun begun, URI back) throws IOException {
        String claim = options.claim();
        Scope scope = claim.startsWith("email") ? new Scope("openid", "email") : new Scope("openid", "profile");
        return new AuthenticationRequest.Builder(ResponseType.CODE, scope, new ClientID(options.client()), back)
                .endpointURI(known().metadata().getAuthorizationEndpointURI())
                .state(new State(begun.state()))
                .nonce(new Nonce(begun.nonce()))
                .codeChallenge(new CodeVerifier(begun.verifier()), CodeChallengeMethod.S256)
                .build()
                .toURI();
    }

    /**
     * Who somebody is whom the provider sent back with a code.
     *
     * @throws NotKnown where it does not vouch for that
     * @throws IOException where it does not answer
     */
    String name(Begun begun, String code, URI back) throws IOException, NotKnown {
        Known provider = known();
        try {
            var grant =
                    new AuthorizationCodeGrant(new AuthorizationCode(code), back, new CodeVerifier(begun.verifier()));
            HTTPRequest asked = new TokenRequest.Builder(
                            provider.metadata().getTokenEndpointURI(), authentication(provider.metadata()), grant)
                    .build()
                    .toHTTPRequest();
            asked.setConnectTimeout(PATIENCE_MILLIS);
            asked.setReadTimeout(PATIENCE_MILLIS);
            asked.setFollowRedirects(false); // the client's secret is in it
            TokenResponse answer = OIDCTokenResponseParser.parse(asked.send());
            if (!answer.indicatesSuccess()) throw new NotKnown("The provider does not take that code.");
            OIDCTokenResponse tokens = (OIDCTokenResponse) answer.toSuccessResponse();
            return name(provider.validator().validate(tokens.getOIDCTokens().getIDToken(), new Nonce(begun.nonce())));
        } catch (ParseException | com.nimbusds.jose.JOSEException | com.nimbusds.jose.proc.BadJOSEException odd) {
            throw new NotKnown("What the provider said cannot be verified.");
        }
    }

    private ClientAuthentication authentication(OIDCProviderMetadata metadata) {
        var client = new ClientID(options.client());
        var secret = new Secret(options.secret());
        List<ClientAuthenticationMethod> methods = metadata.getTokenEndpointAuthMethods();
        boolean takesBasic = methods == null || methods.contains(ClientAuthenticationMethod.CLIENT_SECRET_BASIC);
        return takesBasic ? new ClientSecretBasic(client, secret) : new ClientSecretPost(client, secret);
    }

    private String name(ClaimsSet claims) throws NotKnown {
        String name = claims.getStringClaim(options.claim());
        if (name == null || name.isBlank())
            throw new NotKnown("The provider does not say your " + options.claim() + ".");
        if (options.claim().equals("email") && !Boolean.TRUE.equals(claims.getBooleanClaim("email_verified")))
            throw new NotKnown("The provider does not say that it verified your email.");
        if (!People.isName(name)) throw new NotKnown("Nobody can be called that here.");
        return name.strip();
    }

    /** It is asked once; one that is away, again after a while, and by one who enters at a time: nobody holds many threads so. */
    private Known known() throws IOException {
        Known before = known;
        if (before != null) return before;
        if (System.nanoTime() - askedAgain < 0 || !isAsked.compareAndSet(false, true))
            throw new IOException("The provider " + options.issuer() + " did not answer a moment ago.");
        try {
            return ask();
        } finally {
            askedAgain = System.nanoTime() + RESTS_NANOS;
            isAsked.set(false);
        }
    }

    private Known ask() throws IOException {
        try {
            OIDCProviderMetadata metadata =
                    OIDCProviderMetadata.resolve(new Issuer(options.issuer()), PATIENCE_MILLIS, PATIENCE_MILLIS);
            JWKSource<SecurityContext> keys = JWKSourceBuilder.create(
                            metadata.getJWKSetURI().toURL(),
                            new DefaultResourceRetriever(PATIENCE_MILLIS, PATIENCE_MILLIS, LARGEST_KEYS))
                    .build();
            var validator = new IDTokenValidator(
                    metadata.getIssuer(),
                    new ClientID(options.client()),
                    new JWSVerificationKeySelector<>(ALGORITHMS, keys),
                    null);
            Known now = new Known(metadata, validator);
            known = now;
            return now;
        } catch (GeneralException odd) {
            throw new IOException(
                    "The provider " + options.issuer() + " says nothing of itself that is OpenID Connect's", odd);
        }
    }
}
