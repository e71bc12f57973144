package dev.verbale.secrets;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;

/**
 * The names whose values are secret: a name that ends in one of the words, in any case, with or without hyphens, such as
 * {@code X-Auth-Token}, {@code db.password} or {@code user[password]}. By its end, because {@code tokenizer} holds no token.
 */
final class SecretNames {

    static final List<String> WORDS = List.of(
            "password",
            "passwort",
            "passwd",
            "pwd",
            "passphrase",
            "passcode",
            "kennwort",
            "motdepasse",
            "contrasena",
            "contraseña",
            "senha",
            "wachtwoord",
            "secret",
            "token",
            "apikey",
            "api_key",
            "api-key",
            "api key",
            "access key",
            "secret key",
            "private key",
            "accesskey",
            "access_key",
            "access-key",
            "secretkey",
            "secret_key",
            "secret-key",
            "privatekey",
            "private_key",
            "private-key",
            "accountkey",
            "account_key",
            "account-key",
            "signingkey",
            "signing_key",
            "signing-key",
            "encryptionkey",
            "encryption_key",
            "encryption-key",
            "masterkey",
            "master_key",
            "master-key",
            "sharedkey",
            "shared_key",
            "shared-key",
            "authkey",
            "auth_key",
            "auth-key",
            "subscriptionkey",
            "subscription_key",
            "subscription-key",
            "functions-key",
            "samlresponse",
            "samlrequest",
            "client_assertion",
            "authorization",
            "credential",
            "credentials",
            "cookie",
            "sessionid",
            "session_id",
            "session-id",
            "sessid",
            "connect.sid",
            "csrf",
            "xsrf",
            "otp",
            "cvv",
            "cvc",
            "cardnumber",
            "card_number",
            "card-number");

    /**
     * Words that a name consists of or ends in behind a border, and that mean something else as often: what goes by one is secret where
     * it looks like that, see {@link Evidence}.
     */
    private static final List<String> DOUBTFUL = List.of(
            "pass",
            "pw",
            "pin",
            "auth",
            "bearer",
            "jwt",
            "sid",
            "sig",
            "signature",
            "assertion",
            "dsn",
            "passwords",
            "tokens",
            "secrets",
            "apikeys",
            "cookies",
            "code_verifier",
            "mnemonic",
            "verificationcode",
            "verification_code",
            "securitycode",
            "security_code");

    /** The kinds of names. */
    enum Kind {
        ORDINARY,
        /** What goes by it is secret where it looks like that. */
        DOUBTFUL,
        /** Whatever goes by it is secret. */
        SECRET
    }

    private final Endings secret;

    /** Both, for a name is nearly always neither. */
    private final Endings any;

    private final Endings all;

    /** Those and what sentences and statements have before a blank. */
    private final Endings beforeBlanks;

    private final Endings doubtful = new Endings(DOUBTFUL);

    SecretNames(Collection<String> more) {
        List<String> all = new ArrayList<>(WORDS);
        for (String word : more) all.add(word.strip().toLowerCase(Locale.ROOT));
        secret = new Endings(all);
        all.addAll(DOUBTFUL);
        any = new Endings(all);
        List<String> beforeBlanks = new ArrayList<>(all);
        beforeBlanks.addAll(Phrases.WORDS);
        beforeBlanks.addAll(Siblings.WORDS);
        this.beforeBlanks = new Endings(beforeBlanks);
        all.addAll(Siblings.WORDS);
        all.addAll(NamedValues.TYPE_WORDS);
        all.add("response");
        this.all = new Endings(all);
    }

    /** Whether the value that goes by {@code name} is secret, of a field or a variable of which nothing else is known. */
    boolean isSecret(String name) {
        return isSecret(name, 0, name.length()) || kind(name) == Kind.DOUBTFUL;
    }

    /** Whether a secret name ends right before {@code end} in {@code text}. */
    boolean endsSecret(String text, int end) {
        return secret.lengthBefore(text, end) > 0;
    }

    /** What kind of name ends right before {@code end}. */
    Kind kind(String text, int end) {
        if (end <= 0 || !endsAny(text, end)) return Kind.ORDINARY;
        if (endsSecret(text, end)) return Kind.SECRET;
        int length = doubtful.lengthBefore(text, end);
        return length > 0 && isBorder(text, end - length) ? Kind.DOUBTFUL : Kind.ORDINARY;
    }

    /** Whether a name that is secret, or may be, ends right before {@code end}: false for nearly all. */
    boolean endsAny(String text, int end) {
        return any.isAnyBefore(text, end);
    }

    /** The same of names that other names are said by, of types and of headers too. */
    boolean endsAnyOrNaming(String text, int end) {
        return all.isAnyBefore(text, end);
    }

    /** Whether the word that ends before the blank at {@code end} may be of use: false for nearly all. */
    boolean endsAnyBeforeBlank(String text, int end) {
        return beforeBlanks.isAnyBefore(text, end);
    }

    Kind kind(String name) {
        return kind(name, name.length());
    }

    /** Whether a word begins at {@code at}: a compass is no password. */
    private static boolean isBorder(String text, int at) {
        if (at == 0) return true;
        char before = text.charAt(at - 1);
        return !Chars.isLetter(before) || Character.isLowerCase(before) && Character.isUpperCase(text.charAt(at));
    }

    /** Whether what lies from {@code from} to {@code end} in {@code text} is a secret name. */
    boolean isSecret(String text, int from, int to) {
        int end = to;
        while (end > from && (text.charAt(end - 1) == ']' || Chars.isSpace(text.charAt(end - 1)))) end--;
        if (end <= from) return false;
        int length = secret.lengthBefore(text, end);
        return length > 0 && end - length >= from;
    }
}
