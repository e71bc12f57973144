package dev.verbale.browser.difficult;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What commands to a browser gave, as a test sees it, with how long each of them was under way. */
public final class Transcript {

    /** A command, or something else that may throw. */
    public interface Command {
        @Nullable
        Object call() throws Throwable;
    }

    /** Called in the middle of a scenario, where a test would fail: a watched one captures its evidence there. */
    private final Runnable failing;

    private final List<String> lines = new ArrayList<>();
    private final List<Long> micros = new ArrayList<>();

    public Transcript(Runnable failing) {
        this.failing = failing;
    }

    /** Calls {@code command}; its result, or what it threw with all causes, is a line. */
    public void does(String name, Command command) {
        String line;
        long from = System.nanoTime();
        try {
            line = shown(command.call());
        } catch (Throwable thrown) {
            line = thrown(thrown);
        }
        micros.add((System.nanoTime() - from) / 1_000);
        lines.add(name + ": " + line);
    }

    /** The test of this scenario would fail here. */
    public void fails() {
        failing.run();
    }

    /** What came of each command. */
    public List<String> lines() {
        return lines;
    }

    /** How long each command was under way, in microseconds. */
    public List<Long> micros() {
        return micros;
    }

    private static String shown(@Nullable Object result) {
        if (result instanceof byte[] bytes) return bytes.length > 100 ? "bytes" : bytes.length + " bytes";
        return stable(String.valueOf(result));
    }

    private static String thrown(Throwable failure) {
        var text = new StringBuilder();
        for (Throwable one = failure; one != null; one = one.getCause())
            text.append(text.isEmpty() ? "" : " by ")
                    .append(one.getClass().getName())
                    .append(" \"")
                    .append(stable(firstWords(String.valueOf(one.getMessage()))))
                    .append('"');
        return text.toString();
    }

    /** The first line; of a message in braces the second, which is the first that says something. */
    private static String firstWords(String message) {
        List<String> lines = message.lines().toList();
        if (lines.isEmpty()) return "";
        return lines.get(lines.get(0).endsWith("{") && lines.size() > 1 ? 1 : 0);
    }

    /** Ports, handles and ids are others in each browser, and times are others each time. */
    private static String stable(String text) {
        return text.replaceAll("(127\\.0\\.0\\.1|localhost):\\d+", "$1")
                .replaceAll("\\b(?:f\\.)?[0-9A-Fa-f]{32}\\b[.\\w]*", "#")
                .replaceAll("renderer: -?\\d\\.\\d+", "renderer")
                .replaceAll("\\b\\d+(\\.\\d+)? ?(ms|milliseconds|seconds)", "# $2");
    }
}
