package dev.verbale.secrets;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;

/** Credentials by how they are handed over: behind a scheme of HTTP, before the host of a URL, behind an option of a command. */
final class Credentials {

    private static final int SHORTEST_TOKEN = 6;

    private static final LatePattern FLAG =
            new LatePattern("(--?)([A-Za-z][\\w-]{0,40})(\"|')?(?:\\s+|,\\s*|=)(\"|')?");
    private static final Set<String> USER_FLAGS = Set.of("user", "proxy-user");
    private static final LatePattern DIGEST = new LatePattern("(?i)response\\s*=\\s*\"?([0-9a-f]{32,})");

    private final SecretNames names;

    Credentials(SecretNames names) {
        this.names = names;
    }

    /** Looks at the blank at {@code at}, before which a scheme may stand. */
    void behindScheme(String text, int at, Found found) {
        boolean bearer = isBefore(text, at, "bearer");
        boolean basic = !bearer && isBefore(text, at, "basic");
        if (!bearer && !basic) return;
        int from = Chars.skipSpaces(text, at);
        int to = from;
        while (to < text.length() && Chars.isOfToken(text.charAt(to))) to++;
        if (to - from < SHORTEST_TOKEN) return;
        if (bearer ? isToken(text, from, to) : isBasic(text.substring(from, Math.min(to, from + 2_000)))) {
            if (to == text.length()) found.addOpen(from, to, Mask.TEXT, Rest.ofWord());
            else found.add(from, to, Mask.TEXT);
        }
    }

    private static boolean isBefore(String text, int at, String scheme) {
        int from = at - scheme.length();
        return from >= 0
                && text.regionMatches(true, from, scheme, 0, scheme.length())
                && (from == 0 || !Chars.isAlphanumeric(text.charAt(from - 1)));
    }

    /** Words are none: a token has digits or signs in it, or is longer than words are. */
    private static boolean isToken(String text, int from, int to) {
        int end = to;
        while (end > from && ".,;:".indexOf(text.charAt(end - 1)) >= 0) end--;
        if (end - from >= 24) return true;
        boolean digit = false;
        boolean sign = false;
        int humps = 0;
        for (int i = from; i < end; i++) {
            char c = text.charAt(i);
            digit |= Chars.isDigit(c);
            sign |= "._~+/".indexOf(c) >= 0;
            if (i > from && Character.isUpperCase(c) && Character.isLowerCase(text.charAt(i - 1))) humps++;
        }
        return digit || sign || humps > 1;
    }

    /** A user and a password with a colon between them, in Base64 (RFC 7617). */
    private static boolean isBasic(String token) {
        try {
            String whole = token.length() % 4 == 1 ? token.substring(0, token.length() - 1) : token;
            byte[] decoded = Base64.getDecoder().decode(whole.replaceAll("=+$", ""));
            return new String(decoded, StandardCharsets.ISO_8859_1).indexOf(':') >= 0;
        } catch (IllegalArgumentException noBase64) {
            return false;
        }
    }

    /** Looks at the {@code @} at {@code at}, before which a URL may have its user and password. */
    void inUrl(String text, int at, Found found) {
        int from = at;
        while (from > 0 && at - from < 1_000) {
            char c = text.charAt(from - 1);
            if (Chars.isSpace(c) || c == '"' || c == '\'' || c == '<' || c == '>') return;
            if (c == '/') break;
            from--;
        }
        if (from == at) return;
        if (from < 3 || !text.startsWith("://", from - 3)) {
            if (from > 1 && text.charAt(from - 1) == '/') withoutScheme(text, from, at, found);
            return;
        }
        if (text.substring(from, at).indexOf(':') < 0) return;
        found.add(from, at, Mask.TEXT);
    }

    /** {@code //ada:x@host}, and {@code jdbc:oracle:thin:ada/x@host}. */
    private static void withoutScheme(String text, int from, int at, Found found) {
        if (text.charAt(from - 2) == '/') {
            int colon = text.indexOf(':', from);
            if (colon > from && colon < at - 1) found.add(from, at, Mask.TEXT);
            return;
        }
        int user = from - 1;
        while (user > 0 && (Chars.isAlphanumeric(text.charAt(user - 1)) || text.charAt(user - 1) == '_')) user--;
        if (user > 5 && text.startsWith("thin:", user - 5) || user > 5 && text.startsWith("oci:", user - 4))
            found.add(from, at, Mask.TEXT);
    }

    /** The address that begins with the sign at {@code at} and two slashes: whoever knows that of a hook may write to it. */
    void hook(String text, int at, Found found) {
        for (Hook hook : HOOKS) {
            if (!text.startsWith(hook.host(), at + 3)) continue;
            Matcher path = hook.path().matcher(text).region(at + 3 + hook.host().length(), text.length());
            if (path.lookingAt()) found.add(path.start(1), path.end(1), Mask.TEXT);
            return;
        }
        Matcher hooks = OFFICE.matcher(text).region(at + 3, Math.min(text.length(), at + 120));
        if (!hooks.lookingAt()) return;
        int from = hooks.end();
        int to = from;
        while (to < text.length() && Chars.isOfValue(text.charAt(to))) to++;
        if (to > from) found.add(from, to, Mask.TEXT);
    }

    private record Hook(String host, LatePattern path) {}

    private static final List<Hook> HOOKS = List.of(
            new Hook("hooks.slack.com/", new LatePattern("(?:services|workflows|triggers)/([^\\s\"'<>)]+)")),
            new Hook("hooks.zapier.com/", new LatePattern("hooks/catch/([^\\s\"'<>)]+)")),
            new Hook("discord.com/", new LatePattern("api/(?:v\\d+/)?webhooks/\\d+/([^\\s\"'<>)/?]+)")),
            new Hook("discordapp.com/", new LatePattern("api/(?:v\\d+/)?webhooks/\\d+/([^\\s\"'<>)/?]+)")));

    private static final LatePattern OFFICE =
            new LatePattern("[\\w.-]*(?:webhook\\.office\\.com|outlook\\.office\\.com)/webhook(?:b2)?/");

    /** Looks at the hyphen at {@code at}, with which {@code --password x} or {@code -u user:x} may begin. */
    void behindFlag(String text, int at, Found found) {
        int first = text.startsWith("-", at + 1) ? at + 2 : at + 1;
        if (first >= text.length() || !Chars.isLetter(text.charAt(first))) return;
        if (at > 0 && !Chars.isSpace(text.charAt(at - 1)) && "\"'`(=,".indexOf(text.charAt(at - 1)) < 0) return;
        if (first == at + 1 && "pPawuS".indexOf(text.charAt(first)) >= 0 && ofCommand(text, at, found)) return;
        Matcher flag = FLAG.matcher(text).region(at, Math.min(text.length(), at + 80));
        if (!flag.lookingAt()) return;
        String name = flag.group(2);
        boolean user = flag.group(1).length() == 2 ? USER_FLAGS.contains(name) : name.equals("u");
        if (!user && (flag.group(1).length() == 1 && name.length() < 4 || !names.isSecret(name))) return;
        int from = flag.end();
        String quote = flag.group(4);
        int to = from;
        while (to < text.length()
                && (quote == null
                        ? Chars.isOfValue(text.charAt(to))
                        : text.charAt(to) != quote.charAt(0) && text.charAt(to) != '\n')) to++;
        to = Chars.beforeQuote(text, from, to);
        if (to == from || text.charAt(from) == '-') return;
        if (user) {
            int colon = text.substring(from, to).indexOf(':');
            if (colon < 0 || from + colon >= to - 1) return;
            from += colon + 1;
            if (Prose.isNoValue(text, from, to)) return;
        } else if (quote == null && (Prose.saysSomething(text, from, to) || Prose.isNoValue(text, from, to))) return;
        found.add(from, to, Mask.TEXT);
    }

    /** Options of one letter, of commands that have them for a password. */
    private static final Map<String, String> OPTIONS = Map.ofEntries(
            Map.entry("mysql", "-p"),
            Map.entry("mysqldump", "-p"),
            Map.entry("mysqladmin", "-p"),
            Map.entry("mariadb", "-p"),
            Map.entry("mongo", "-p"),
            Map.entry("mongosh", "-p"),
            Map.entry("mongodump", "-p"),
            Map.entry("sshpass", "-p"),
            Map.entry("login", "-p"),
            Map.entry("7z", "-p"),
            Map.entry("unzip", "-P"),
            Map.entry("zip", "-P"),
            Map.entry("sqlcmd", "-P"),
            Map.entry("bcp", "-P"),
            Map.entry("plink", "-pw"),
            Map.entry("pscp", "-pw"),
            Map.entry("redis-cli", "-a"),
            Map.entry("ldapsearch", "-w"),
            Map.entry("ldapadd", "-w"),
            Map.entry("ldapmodify", "-w"),
            Map.entry("ipmitool", "-P"),
            Map.entry("ConvertTo-SecureString", "-String"),
            Map.entry("curl", "-u"));

    private static final LatePattern WORD = new LatePattern("[\\w.-]+");

    /** {@code mysql -uroot -px}: whether the option at {@code at} is that of a command before it in the line. */
    private static boolean ofCommand(String text, int at, Found found) {
        int line = at;
        while (line > 0 && at - line < 120 && "\n\r|;&".indexOf(text.charAt(line - 1)) < 0) line--;
        Matcher word = WORD.matcher(text).region(line, at);
        while (word.find()) {
            String option = OPTIONS.get(word.group());
            if (option == null || !text.startsWith(option, at)) continue;
            int from = at + option.length();
            if (from < text.length() && Chars.isBlank(text.charAt(from))) from = Chars.skipBlanks(text, from);
            else if (option.length() > 2) return false;
            String quote = Quotes.at(text, from);
            from += quote.length();
            int to = from;
            while (to < text.length()
                    && (quote.isEmpty() ? Chars.isOfValue(text.charAt(to)) : !text.startsWith(quote, to))) to++;
            to = Chars.beforeQuote(text, from, to);
            if (option.equals("-u")) {
                int colon = text.indexOf(':', from);
                if (colon < 0 || colon >= to - 1) return false;
                from = colon + 1;
            }
            if (to <= from || text.charAt(from) == '-') return false;
            if (Prose.isNoValue(text, from, to)) return true;
            found.add(from, to, Mask.TEXT);
            return true;
        }
        return false;
    }

    /** Looks at the sign at {@code at}: the response to a challenge is as good as a password for some time (RFC 7616). */
    void inDigest(String text, int at, Found found) {
        int from = at;
        while (from > 0 && Chars.isBlank(text.charAt(from - 1))) from--;
        if (from == 0 || (text.charAt(from - 1) | 0x20) != 'e') return;
        if (!text.regionMatches(true, from - 8, "response", 0, 8)) return;
        Matcher digest = DIGEST.matcher(text).region(from - 8, Math.min(text.length(), at + 200));
        if (digest.lookingAt()) found.add(digest.start(1), digest.end(1), Mask.TEXT);
    }
}
