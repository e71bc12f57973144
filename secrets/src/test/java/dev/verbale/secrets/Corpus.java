package dev.verbale.secrets;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Texts with and without secrets, from the files beside this class. */
public final class Corpus {

    private static final Pattern SECRET = Pattern.compile("⟦([^⟧]*)⟧");

    private Corpus() {}

    /**
     * A text.
     *
     * @param text as it is written by a suite
     * @param masked as it may be kept
     * @param secrets of which nothing may be left
     * @param exact whether it is to be kept just so, and not with more masked than that
     */
    public record Sample(String text, String masked, List<String> secrets, boolean exact) {
        @Override
        public String toString() {
            return text.replace("\n", "⏎");
        }
    }

    /** Texts that hold secrets. */
    public static Stream<Sample> secrets() {
        return lines("secrets.txt").map(Corpus::sample);
    }

    private static Sample sample(String line) {
        boolean exact = !line.endsWith("~");
        boolean number = line.endsWith("!"); // in JSON, where a text takes its place
        String marked = exact && !number ? line : line.substring(0, line.length() - 1);
        return new Sample(
                marked.replace("⟦", "").replace("⟧", ""),
                SECRET.matcher(marked).replaceAll(number ? "\"[masked]\"" : "[masked]"),
                SECRET.matcher(marked).results().map(found -> found.group(1)).toList(),
                exact);
    }

    /** Texts that hold none. */
    public static Stream<String> ordinary() {
        return lines("ordinary.txt");
    }

    private static Stream<String> lines(String file) {
        try (InputStream in = Corpus.class.getResourceAsStream("/secrets/" + file)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(line -> !line.isBlank() && !line.startsWith("# "))
                    .map(line -> line.replace("⏎", "\n").replace("⇥", "\t"));
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }
}
