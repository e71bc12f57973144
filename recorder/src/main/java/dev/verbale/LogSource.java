package dev.verbale;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * What the tested service wrote while a test ran, beside the test that fails: the lines of a file that grows, of a command such as a
 * container's log, or of whatever gives a text. They are the test's lines then, masked and bounded as all others, and stand at the
 * exchange whose trace they name.
 *
 * <pre>{@code
 * Verbale.register(LogSource.file("garden", Path.of("/var/log/garden.log"))); // in a @BeforeEach: lines from here on are the test's
 * }</pre>
 *
 * <p>Nothing is read before something fails. Of a source that is registered for a whole class, a test has the lines since the one before
 * that failed; lines that say when they were written, and that is before the test, are left out and counted. At the most {@value #MAX_LINES} lines are taken, the last ones; lines are UTF-8. Safe for several threads.
 *
 * @since 0.2.0
 */
public final class LogSource implements EvidenceSource {

    private static final int MAX_LINES = 200;
    private static final int MAX_BYTES = 1 << 18;
    private static final int COMMAND_SECONDS = 5;

    /** Of a line whose time is cut to seconds, and of two machines. */
    private static final Duration CLOCKS_DIFFER = Duration.ofSeconds(1);

    private final String name;
    private final Reading reading;
    private final Instant registered = Instant.now();

    /** Gives what was not given before. */
    @FunctionalInterface
    private interface Reading {
        String more() throws Exception;
    }

    private LogSource(String name, Reading reading) {
        this.name = name;
        this.reading = reading;
    }

    /**
     * A file that grows, from its present end on. One that is not there yet is read from its beginning, and so is one that became shorter.
     *
     * @param name what a reader knows the service by
     */
    public static LogSource file(String name, Path file) {
        return new LogSource(name, new GrowingFile(file));
    }

    /**
     * What {@code command} prints, such as {@code docker logs --since 1m garden}. It is started when something fails, and has
     * {@value #COMMAND_SECONDS} seconds.
     *
     * @param name what a reader knows the service by
     */
    public static LogSource command(String name, String... command) {
        List<String> words = command == null ? List.of() : Arrays.asList(command.clone());
        return text(name, () -> printed(words));
    }

    /**
     * What {@code text} gives, all of it each time: asked when something fails, such as an address of the service that shows its log.
     *
     * @param name what a reader knows the service by
     */
    public static LogSource text(String name, ThrowingSupplier<String, ? extends Exception> text) {
        return new LogSource(name, new WholeText(text));
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public void capture(Evidence evidence) throws Exception {
        String more;
        synchronized (reading) {
            more = reading.more();
        }
        List<String> lines = since(evidence.began(), more);
        if (lines.size() > MAX_LINES)
            evidence.log(name, "(" + (lines.size() - MAX_LINES) + " lines before these are left out)");
        for (String line : lines.subList(Math.max(0, lines.size() - MAX_LINES), lines.size())) evidence.log(name, line);
    }

    /** Without what is older by what it says itself, and what is set in below that: it is another test's. */
    private List<String> since(@Nullable Instant began, String more) {
        List<String> all = more.lines().filter(line -> !line.isBlank()).toList();
        if (began == null || registered.isAfter(began)) return all;
        Instant from = began.minus(CLOCKS_DIFFER);
        List<String> lines = new ArrayList<>();
        boolean isOlder = false;
        for (String line : all) {
            Instant written = LineTime.of(line);
            if (written != null) isOlder = written.isBefore(from);
            if (!isOlder) lines.add(line);
        }
        int older = all.size() - lines.size();
        if (older > 0) lines.add(0, "(" + older + (older == 1 ? " line is" : " lines are") + " from before this test)");
        return lines;
    }

    /** A file, and how far it was read. */
    private static final class GrowingFile implements Reading {
        private final Path file;
        private long position;

        private GrowingFile(Path file) {
            this.file = file;
            try {
                position = Files.size(file);
            } catch (IOException | RuntimeException notThereYet) {
                position = 0;
            }
        }

        private GrowingFile(Path file, long position) {
            this.file = file;
            this.position = position;
        }

        @Override
        public String more() throws IOException {
            try (var open = new RandomAccessFile(file.toFile(), "r")) {
                long size = open.length();
                if (size < position) position = 0; // it was begun anew
                long from = Math.max(position, size - MAX_BYTES);
                byte[] bytes = new byte[(int) (size - from)];
                open.seek(from);
                open.readFully(bytes);
                boolean isCut = from > position;
                position = size;
                String text = new String(bytes, StandardCharsets.UTF_8);
                return isCut ? text.substring(text.indexOf('\n') + 1) : text;
            }
        }
    }

    /** A text that is given whole each time. */
    private static final class WholeText implements Reading {
        private final ThrowingSupplier<String, ? extends Exception> text;
        private String before = "";

        private WholeText(ThrowingSupplier<String, ? extends Exception> text) {
            this.text = text;
        }

        @Override
        public String more() throws Exception {
            String now = text.get();
            if (now == null) return "";
            String kept = now.length() > MAX_BYTES ? now.substring(now.length() - MAX_BYTES) : now;
            String more = kept.startsWith(before) ? kept.substring(before.length()) : kept;
            before = kept;
            return more;
        }
    }

    /** Into a file: whoever reads from a process that hangs, hangs too. */
    private static String printed(List<String> command) throws IOException, InterruptedException {
        Path output = Files.createTempFile("log-source", ".txt");
        try {
            Process process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(output.toFile())
                    .start();
            try {
                boolean hasEnded = process.waitFor(COMMAND_SECONDS, TimeUnit.SECONDS);
                String printed = new GrowingFile(output, 0).more();
                return hasEnded ? printed : printed + "\n(the command was ended after " + COMMAND_SECONDS + " s)";
            } finally {
                process.destroyForcibly();
            }
        } finally {
            Files.deleteIfExists(output);
        }
    }
}
