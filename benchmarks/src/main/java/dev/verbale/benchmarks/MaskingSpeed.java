package dev.verbale.benchmarks;

import dev.verbale.secrets.RedactingReader;
import dev.verbale.secrets.Redactor;
import java.io.PrintWriter;
import java.io.StringReader;
import java.io.StringWriter;
import java.io.Writer;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/** How fast texts of several kinds are searched for secrets, beside a loop that only looks at each character. */
public final class MaskingSpeed {

    private static final int ROUNDS = 9;
    private static final long ROUND_NANOS = 300_000_000;
    private static long sink;

    /** Ordinary texts without a secret. */
    private static final List<String> WITH_GOAL =
            List.of("a line with signs", "a stack trace", "JSON", "a page source");

    private MaskingSpeed() {}

    public static void main(String[] arguments) throws Exception {
        var plain = new Redactor(List.of(), List.of());
        var known = new Redactor(List.of(), List.of());
        for (int i = 0; i < 20; i++) known.add("known-value-" + i + "/&" + i);
        System.out.println(
                "| text | characters | MB/s | with 20 known values | regular expressions, MB/s | a loop over it, MB/s |");
        System.out.println("|---|---|---|---|---|---|");
        for (Map.Entry<String, String> one : texts().entrySet()) {
            String text = one.getValue();
            double scan = speed(text, () -> scanned(text));
            double[] bares = speeds(text, () -> plain.redacted(text).length());
            double bare = Figures.median(bares);
            double many = speed(text, () -> known.redacted(text).length());
            boolean isOrdinary = !one.getKey().startsWith("`"); // on others the expressions take minutes
            double expressions = isOrdinary ? speed(text, () -> byExpressions(text)) : 0;
            System.out.printf(
                    "| %s | %,d | %s | %.0f | %s | %.0f |%n",
                    one.getKey(),
                    text.length(),
                    Figures.withSpread(bares),
                    many,
                    isOrdinary ? String.format("%.1f", expressions) : "",
                    scan);
            if (WITH_GOAL.contains(one.getKey()))
                Figures.put("masking " + one.getKey() + ", to a loop", scan / bare, 10, "times");
        }
        String page = texts().get("a page source").repeat(20);
        System.out.printf(
                "| a page source, copied piece by piece | %,d | %.0f | | |%n",
                page.length(), speed(page, () -> {
                    RedactingReader.copy(plain, new StringReader(page), Writer.nullWriter());
                    return 1;
                }));
        if (sink == 42) System.out.println();
    }

    private static Map<String, String> texts() {
        Map<String, String> texts = new LinkedHashMap<>();
        texts.put("a line without signs", "Swap plot 12 with plot 7 and Ada with Dario");
        texts.put("a line with signs", "plot=12 keeper=Ada status: ok, took 12 ms");
        texts.put("a line with a secret", "POST /login user=ada&password=hunter2&season=summer");
        var stack = new StringWriter();
        new IllegalStateException("the gate is locked").printStackTrace(new PrintWriter(stack));
        texts.put("a stack trace", stack.toString().repeat(30));
        var json = new StringBuilder("{\"plots\":[");
        for (int i = 0; i < 40; i++)
            json.append("{\"id\":").append(i).append(",\"keeper\":\"Ada\",\"crop\":\"beans\"},");
        texts.put("JSON", json + "{\"id\":40}]}");
        texts.put("JSON with one token", json.append("{\"token\":\"abc123\"}]}").toString());
        var page = new StringBuilder("<html>");
        for (int i = 0; i < 3_000; i++)
            page.append("<div class=\"plot\" id=\"p")
                    .append(i)
                    .append("\"><a href=\"/plots/")
                    .append(i)
                    .append("\">Plot</a></div>\n");
        texts.put("a page source", page.toString());
        for (String opening : List.of("token=[", "cookie: a; ", "eyJ-", "<token><x>"))
            for (int length : List.of(100_000, 1_000_000))
                texts.put(
                        "`" + opening + "` again and again, " + length / 1_000 + " kB",
                        opening.repeat(length / opening.length()));
        return texts;
    }

    /** The rules as one would write them down as expressions: less than ours find, and each looks at all of a text. */
    private static final List<Pattern> EXPRESSIONS = List.of(
            Pattern.compile(
                    "(?i)[\\w.-]*(?:password|passwort|passwd|pwd|passphrase|secret|token|api[_-]?key|access[_-]?key"
                            + "|secret[_-]?key|private[_-]?key|authorization|credentials?|cookie|session[_-]?id|csrf|xsrf|otp|cvv|cvc"
                            + "|card[_-]?number)[\"'\\]]?\\s*[:=]\\s*(\"[^\"]*\"|'[^']*'|[^\\s&,;]+)"),
            Pattern.compile("(?i)\\b(?:bearer|basic)\\s+([\\w.~+/=-]{6,})"),
            Pattern.compile("\\beyJ[\\w-]{8,}\\.[\\w-]{8,}(?:\\.[\\w-]*)*"),
            Pattern.compile(
                    "\\b(?:AKIA|ASIA)[A-Z0-9]{16}\\b|\\bAIza[\\w-]{35}|\\bgh[pousr]_[A-Za-z0-9]{36,}|\\bglpat-[\\w-]{20,}"),
            Pattern.compile("-----BEGIN [A-Z ]*PRIVATE KEY-----[^-]*-----END"),
            Pattern.compile("://[^/\\s:@]+:[^/\\s@]+@"),
            Pattern.compile("\\b\\d(?:[ -]?\\d){12,18}\\b"),
            Pattern.compile("\\b[A-Z]{2}\\d{2}[A-Z0-9]{11,30}\\b"));

    private static int byExpressions(String text) {
        String masked = text;
        for (Pattern one : EXPRESSIONS) masked = one.matcher(masked).replaceAll("[masked]");
        return masked.length();
    }

    private static int scanned(String text) {
        int all = 0;
        for (int i = 0; i < text.length(); i++) all += text.charAt(i);
        return all;
    }

    @FunctionalInterface
    private interface Work {
        int run() throws Exception;
    }

    /** The median of the rounds, in millions of characters a second. */
    private static double speed(String text, Work work) throws Exception {
        return Figures.median(speeds(text, work));
    }

    private static double[] speeds(String text, Work work) throws Exception {
        var speeds = new double[ROUNDS];
        for (int round = 0; round < ROUNDS; round++) {
            long from = System.nanoTime();
            long characters = 0;
            while (System.nanoTime() - from < ROUND_NANOS) {
                sink += work.run();
                characters += text.length();
            }
            speeds[round] = characters * 1e3 / (System.nanoTime() - from);
        }
        return speeds;
    }
}
