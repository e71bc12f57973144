package dev.verbale.secrets;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Secrets that are known by their own shape, whatever stands around them. */
final class KeyShapes {

    private static final String PEM = "-----BEGIN ";
    private static final String PEM_END = "-----END ";

    /** Each with how it begins; what is before it is no part of a longer word. */
    private record Shape(String beginning, int mark, LatePattern pattern) {
        Shape(String beginning, String rest) {
            this(beginning, markIn(beginning), new LatePattern(Pattern.quote(beginning) + rest));
        }

        /** Before the first character there is nothing to know it by. */
        private static int markIn(String beginning) {
            for (int at = 1; at < beginning.length(); at++)
                if ((MARKS + MORE_MARKS).indexOf(beginning.charAt(at)) >= 0) return at;
            throw new IllegalStateException(beginning + " has no mark");
        }
    }

    private static final List<Shape> SHAPES = List.of(
            new Shape("AKIA", "[A-Z0-9]{16}(?![A-Za-z0-9])"),
            new Shape("ASIA", "[A-Z0-9]{16}(?![A-Za-z0-9])"),
            new Shape("AIza", "[\\w-]{30,}"),
            new Shape("ghp_", "[\\w-]{30,}"),
            new Shape("gho_", "[\\w-]{30,}"),
            new Shape("ghu_", "[\\w-]{30,}"),
            new Shape("ghs_", "[\\w-]{30,}"),
            new Shape("ghr_", "[\\w-]{30,}"),
            new Shape("github_pat_", "[\\w-]{22,}"),
            new Shape("glpat-", "[\\w-]{16,}"),
            new Shape("glptt-", "[\\w-]{16,}"),
            new Shape("gldt-", "[\\w-]{16,}"),
            new Shape("glrt-", "[\\w-]{16,}"),
            new Shape("glcbt-", "[\\w-]{16,}"),
            new Shape("glimt-", "[\\w-]{16,}"),
            new Shape("glagent-", "[\\w-]{16,}"),
            new Shape("gloas-", "[\\w-]{16,}"),
            new Shape("glsoat-", "[\\w-]{16,}"),
            new Shape("glffct-", "[\\w-]{16,}"),
            new Shape("glft-", "[\\w-]{16,}"),
            new Shape("npm_", "[\\w-]{20,}"),
            new Shape("sk_live_", "[\\w-]{10,}"),
            new Shape("sk_test_", "[\\w-]{10,}"),
            new Shape("rk_live_", "[\\w-]{10,}"),
            new Shape("rk_test_", "[\\w-]{10,}"),
            new Shape("whsec_", "[\\w-]{16,}"),
            new Shape("sk-proj-", "[\\w-]{16,}"),
            new Shape("sk-ant-", "[\\w-]{16,}"),
            new Shape("sk-", "(?=[\\w-]{0,40}\\d)[\\w-]{20,}"),
            new Shape("xoxb-", "[\\w-]{10,}"),
            new Shape("xoxp-", "[\\w-]{10,}"),
            new Shape("xoxa-", "[\\w-]{10,}"),
            new Shape("xoxs-", "[\\w-]{10,}"),
            new Shape("xoxr-", "[\\w-]{10,}"),
            new Shape("xoxc-", "[\\w-]{10,}"),
            new Shape("xoxd-", "[\\w-]{10,}"),
            new Shape("xoxe-", "[\\w-]{10,}"),
            new Shape("xapp-", "[\\w-]{10,}"),
            new Shape("hf_", "[\\w-]{16,}"),
            new Shape("shpat_", "[\\w-]{16,}"),
            new Shape("shpss_", "[\\w-]{16,}"),
            new Shape("shpca_", "[\\w-]{16,}"),
            new Shape("shppa_", "[\\w-]{16,}"),
            new Shape("dop_v1_", "[\\w-]{16,}"),
            new Shape("doo_v1_", "[\\w-]{16,}"),
            new Shape("dor_v1_", "[\\w-]{16,}"),
            new Shape("dckr_pat_", "[\\w-]{16,}"),
            new Shape("dckr_oat_", "[\\w-]{16,}"),
            new Shape("lin_api_", "[\\w-]{16,}"),
            new Shape("figd_", "[\\w-]{16,}"),
            new Shape("PMAK-", "[\\w-]{20,}"),
            new Shape("NRAK-", "[\\w-]{16,}"),
            new Shape("NRII-", "[\\w-]{16,}"),
            new Shape("glsa_", "[\\w-]{16,}"),
            new Shape("glc_", "[\\w-]{20,}"),
            new Shape("sbp_", "[\\w-]{20,}"),
            new Shape("pscale_tkn_", "[\\w-]{16,}"),
            new Shape("pscale_pw_", "[\\w-]{16,}"),
            new Shape("pscale_oauth_", "[\\w-]{16,}"),
            new Shape("rubygems_", "[\\w-]{20,}"),
            new Shape("pypi-", "(?=[\\w-]{0,60}\\d)[\\w-]{30,}"),
            new Shape("GOCSPX-", "[\\w-]{16,}"),
            new Shape("sq0atp-", "[\\w-]{16,}"),
            new Shape("sq0csp-", "[\\w-]{16,}"),
            new Shape("ntn_", "[\\w-]{20,}"),
            new Shape("CCIPAT_", "[\\w-]{16,}"),
            new Shape("sntrys_", "[\\w-]{20,}"),
            new Shape("sntryu_", "[\\w-]{20,}"),
            new Shape("HRKU-", "[\\w-]{20,}"),
            new Shape("AGE-SECRET-KEY-1", "[\\w-]{16,}"),
            new Shape("key-", "[0-9a-f]{32}(?!\\w)"),
            new Shape("rnd_", "[\\w-]{20,}"),
            new Shape("r8_", "[\\w-]{20,}"),
            new Shape("pat-na1-", "[\\w-]{16,}"),
            new Shape("pat-eu1-", "[\\w-]{16,}"),
            new Shape("bkua_", "[\\w-]{16,}"),
            new Shape("tfp_", "[\\w-]{16,}"),
            new Shape("nvapi-", "[\\w-]{20,}"),
            new Shape("gsk_", "[\\w-]{20,}"),
            new Shape("xai-", "[\\w-]{20,}"),
            new Shape("pplx-", "[\\w-]{20,}"),
            new Shape("ops_eyJ", "[\\w-]{16,}"),
            new Shape("shptka_", "[\\w-]{16,}"),
            new Shape("lsv2_pt_", "[\\w-]{16,}"),
            new Shape("phx_", "[\\w-]{20,}"),
            new Shape("pul-", "[\\w-]{20,}"),
            new Shape("dt0c01.", "[\\w-]{16,}"),
            new Shape("SG.", "[\\w!-]{10,}\\.[\\w!-]{16,}"),
            new Shape("hvs.", "[\\w-]{16,}"),
            new Shape("hvb.", "[\\w-]{16,}"),
            new Shape("hvr.", "[\\w-]{16,}"),
            new Shape("ya29.", "[\\w-]{16,}"),
            new Shape("dp.pt.", "[\\w-]{16,}"),
            new Shape("dp.st.", "[\\w-]{16,}"),
            new Shape("LTAI", "[A-Za-z0-9]{12,24}(?![A-Za-z0-9])"));

    /** A JSON Web Token, RFC 7519: a header in Base64 always begins so. */
    private static final String TOKEN = "eyJ";

    private static final int SHORTEST_PART = 8;

    /** Each shape has one of these soon after its beginning, and texts have few. */
    static final String MARKS = "JI_";

    /** Marks that are looked at for other reasons too. */
    private static final String MORE_MARKS = "-.";

    /** By a mark and what stands right before it: nearly all marks are in the middle of something else. */
    private static final Shape[][] AT = new Shape[128 * 128][];

    static {
        for (Shape shape : SHAPES) {
            String beginning = shape.beginning();
            int at = shape.mark();
            int index = index(beginning.charAt(at - 1), beginning.charAt(at));
            Shape[] known = AT[index] == null ? new Shape[0] : AT[index];
            AT[index] = Arrays.copyOf(known, known.length + 1);
            AT[index][known.length] = shape;
        }
    }

    /** All of a beginning up to its mark, in small letters: nearly no mark has the end of one before it. */
    private static final Endings BEGINNINGS = new Endings(Stream.concat(
                    Stream.of("eyj"),
                    SHAPES.stream()
                            .map(shape -> shape.beginning()
                                    .substring(0, shape.mark() + 1)
                                    .toLowerCase(Locale.ROOT)))
            .toList());

    /** How each shape begins. */
    static List<String> beginnings() {
        return SHAPES.stream().map(Shape::beginning).toList();
    }

    private static int index(char leading, char mark) {
        return leading << 7 | mark;
    }

    /** Up to here letters, digits and hyphens were followed: more than one token may begin in them, and none end. */
    private int followed;

    private int begun;

    /** Another text, or a piece of one that is looked at from {@code from} on. */
    void begin(int from) {
        followed = 0;
        begun = from;
    }

    /** Looks at the mark at {@code at}, before which a shape may begin. */
    void findAt(String text, int at, Found found) {
        if (!mayBeginBefore(text, at)) return;
        char leading = text.charAt(at - 1);
        if (leading >= 128) return;
        char mark = text.charAt(at);
        if (mark == 'J' && leading == 'y') tokenAt(text, at - 2, found);
        Shape[] shapes = AT[index(leading, mark)];
        if (shapes == null) return;
        for (Shape shape : shapes) {
            int from = at - shape.mark();
            if (from < begun || from < found.end() || !text.startsWith(shape.beginning(), from) || isInWord(text, from))
                continue;
            Matcher matcher = shape.pattern().matcher(text).region(from, text.length());
            if (!matcher.lookingAt()) continue;
            if (matcher.end() == text.length()) found.addOpen(from, matcher.end(), Mask.TEXT, Rest.ofWord());
            else found.add(from, matcher.end(), Mask.TEXT);
            return;
        }
    }

    /** Whether a shape may begin before the mark at {@code at}: false for nearly all. */
    static boolean mayBeginBefore(String text, int at) {
        return at > 0 && BEGINNINGS.isAnyBefore(text, at + 1);
    }

    private static boolean isInWord(String text, int at) {
        return at > 0 && (Chars.isAlphanumeric(text.charAt(at - 1)) || text.charAt(at - 1) == '_');
    }

    private void tokenAt(String text, int at, Found found) {
        if (at >= begun && at >= found.end() && text.startsWith(TOKEN, at) && !isInWord(text, at))
            webToken(text, at, found);
    }

    private void webToken(String text, int at, Found found) {
        int dot = partEnd(text, Math.max(at, followed));
        followed = dot;
        if (dot == text.length() || text.charAt(dot) != '.' || dot - at < TOKEN.length() + SHORTEST_PART) return;
        int end = partEnd(text, dot + 1);
        if (end - dot <= SHORTEST_PART) return;
        while (end < text.length() && (isOfPart(text.charAt(end)) || text.charAt(end) == '.')) end++;
        if (end == text.length()) found.addOpen(at, end, Mask.TEXT, Rest.ofWord());
        else found.add(at, end, Mask.TEXT);
    }

    private static int partEnd(String text, int from) {
        int end = from;
        while (end < text.length() && isOfPart(text.charAt(end))) end++;
        return end;
    }

    private static boolean isOfPart(char c) {
        return c < 128 && (Chars.isAlphanumeric(c) || c == '_' || c == '-');
    }

    /** Looks at the hyphen at {@code at}: a private key in PEM form (RFC 7468), its lines or their escapes. */
    static void pem(String text, int at, Found found) {
        if (!text.startsWith(PEM, at)) return;
        int head = text.indexOf("-----", at + PEM.length());
        if (head < 0 || head - at > 80 || !text.substring(at, head).contains("PRIVATE KEY")) return;
        int from = head + 5;
        int to = from;
        while (to < text.length() && isOfPem(text, to)) to++;
        to = Chars.beforeQuote(text, from, to);
        String line = text.startsWith("\\n", from) ? "\\n" : text.startsWith("\n", from) ? "\n" : "";
        if (to == text.length()) found.addOpen(from, to, line + Mask.TEXT + line, KeyShapes::pemEnd);
        else found.add(from, to, line + Mask.TEXT + (text.startsWith(PEM_END, to) ? line : ""));
    }

    private static int pemEnd(String text, int from) {
        for (int i = from; i < text.length(); i++) if (!isOfPem(text, i)) return i;
        return -1;
    }

    /** All up to its last line; where there is none, up to what closes the text that it stands in. */
    private static boolean isOfPem(String text, int at) {
        char c = text.charAt(at);
        return c != '"' && c != '\'' && c != '<' && !(c == '-' && text.startsWith(PEM_END, at));
    }
}
