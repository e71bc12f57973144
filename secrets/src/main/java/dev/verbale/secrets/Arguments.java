package dev.verbale.secrets;

import java.util.List;

/** Literals beside each other in a program: {@code ("password", "x")}, {@code .password("x")}, {@code new Credentials("ada", "x")}. */
final class Arguments {

    private static final int LONGEST = 200;
    private static final int LONGEST_VALUE = 10_000;

    /** What is called so takes a user and a password. */
    private static final Endings LOGINS = new Endings(List.of(
            "credential", "credentials", "authentication", "basicauth", "basic", "login", "signin", "authenticate"));

    /** What is called so takes a name and its value. */
    private static final Endings SETTERS = new Endings(List.of(
            "put",
            "header",
            "headers",
            "set",
            "with",
            "param",
            "formparam",
            "queryparam",
            "cookie",
            "add",
            "append",
            "property",
            "attribute",
            "field",
            "env",
            "entry",
            "pair",
            "parameter",
            "input",
            "fill",
            "type"));

    private final SecretNames names;
    private boolean hasCalls;

    Arguments(SecretNames names) {
        this.names = names;
    }

    /** Another text, or a piece of one. */
    void begin(String text) {
        hasCalls = text.indexOf('(') >= 0;
    }

    /** Looks at the comma at {@code at}. */
    void behindComma(String text, int at, Found found) {
        if (at < 3) return;
        char last = text.charAt(at - 1);
        if (last != '"' && last != '\'') return;
        if (!hasCalls && !names.endsAny(text, at - Quotes.lengthBefore(text, at))) return;
        String quote = Quotes.before(text, at);
        int from = literalStart(text, at - quote.length(), quote);
        if (from < 0) return;
        SecretNames.Kind kind = names.kind(text, at - quote.length());
        int call = from - quote.length();
        boolean isLogin = kind == SecretNames.Kind.ORDINARY && isCall(text, call, LOGINS);
        if (kind == SecretNames.Kind.ORDINARY && !isLogin) return;
        int next = Chars.skipSpaces(text, at + 1);
        String open = Quotes.at(text, next);
        if (open.isEmpty()) return;
        int value = next + open.length();
        int to = Quotes.closeNear(text, value, open, LONGEST_VALUE);
        if (to <= value || Prose.isNoValue(text, value, to)) return;
        boolean isSet = kind != SecretNames.Kind.DOUBTFUL && (isLogin || isCall(text, call, SETTERS));
        boolean isWhatIsSet = isSet && !Prose.isSentence(text, value, Math.min(to, value + LONGEST));
        if (isWhatIsSet || Evidence.looksSecret(text, value, to)) found.add(value, to, Mask.TEXT);
    }

    /** Where the literal begins that ends before {@code end}, without its quote; -1 for nowhere near. */
    private static int literalStart(String text, int end, String quote) {
        for (int i = end; i > 0 && end - i < LONGEST; i--) {
            if (text.charAt(i - 1) == '\n') return -1;
            if (text.startsWith(quote, i - quote.length()) && i < end) return i;
        }
        return -1;
    }

    /** Whether a bracket opens before {@code at} that a call of one of {@code callees} has. */
    private static boolean isCall(String text, int at, Endings callees) {
        int open = at;
        while (open > 0 && Chars.isSpace(text.charAt(open - 1))) open--;
        return open > 1 && text.charAt(open - 1) == '(' && callees.lengthBefore(text, open - 1) > 0;
    }

    /** Looks at the bracket at {@code at}: {@code password("x")}, {@code setToken("x")}. */
    void inCall(String text, int at, Found found) {
        if (!names.endsAny(text, at) || names.kind(text, at) == SecretNames.Kind.ORDINARY) return;
        int from = Openings.behind(text, at + 1);
        String open = Quotes.at(text, from);
        if (open.isEmpty()) return;
        int value = from + open.length();
        int to = Quotes.closeNear(text, value, open, LONGEST_VALUE);
        if (to <= value || !text.startsWith(")", to + open.length())) return; // one argument and no other
        if (Evidence.looksSecret(text, value, to)) found.add(value, to, Mask.TEXT);
    }
}
