package dev.verbale.recorder;

import dev.verbale.folder.ResultsRoot;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * How a run is recorded.
 *
 * @param enabled whether it is recorded at all
 * @param root the folder that run folders are made in; null for {@code target/verbale} of the build, or of the folder that
 *     the JVM was started in
 * @param run the name of the run folder to write to, made where it is not there; null for a new one, or for the one that
 *     the other JVMs of the same build write to
 * @param closingLine whether the end of a run is said in one line on the standard output
 * @param strayLinesToOnlyTest whether a line from a thread that belongs to no test is given to the test that runs, where
 *     there is just one
 * @param secretNames words that the names of secret values end in, besides those that are known
 * @param secretPatterns regular expressions: group 1 of what matches is masked, or the whole where there is no group
 * @param linkPatterns what turns the name of a link into its address
 * @param logging how much of what loggers write is kept
 * @param adapters what was set for adapters, by the setting's whole name
 */
public record RecorderOptions(
        boolean enabled,
        @Nullable Path root,
        @Nullable String run,
        boolean closingLine,
        boolean strayLinesToOnlyTest,
        List<String> secretNames,
        List<String> secretPatterns,
        List<LinkPattern> linkPatterns,
        Logging logging,
        Map<String, String> adapters) {

    public RecorderOptions {
        adapters = Map.copyOf(adapters);
        secretNames = List.copyOf(secretNames);
        secretPatterns = List.copyOf(secretPatterns);
        linkPatterns = List.copyOf(linkPatterns);
    }

    /** What holds where nothing was set. */
    public static RecorderOptions defaults() {
        return new RecorderOptions(
                true, null, null, true, true, List.of(), List.of(), List.of(), Logging.defaults(), Map.of());
    }

    public RecorderOptions withEnabled(boolean on) {
        return new RecorderOptions(
                on,
                root,
                run,
                closingLine,
                strayLinesToOnlyTest,
                secretNames,
                secretPatterns,
                linkPatterns,
                logging,
                adapters);
    }

    public RecorderOptions withRoot(Path folder) {
        return new RecorderOptions(
                enabled,
                folder,
                run,
                closingLine,
                strayLinesToOnlyTest,
                secretNames,
                secretPatterns,
                linkPatterns,
                logging,
                adapters);
    }

    public RecorderOptions withRun(@Nullable String name) {
        return new RecorderOptions(
                enabled,
                root,
                name,
                closingLine,
                strayLinesToOnlyTest,
                secretNames,
                secretPatterns,
                linkPatterns,
                logging,
                adapters);
    }

    public RecorderOptions withClosingLine(boolean on) {
        return new RecorderOptions(
                enabled,
                root,
                run,
                on,
                strayLinesToOnlyTest,
                secretNames,
                secretPatterns,
                linkPatterns,
                logging,
                adapters);
    }

    public RecorderOptions withStrayLinesToOnlyTest(boolean on) {
        return new RecorderOptions(
                enabled, root, run, closingLine, on, secretNames, secretPatterns, linkPatterns, logging, adapters);
    }

    public RecorderOptions withSecrets(List<String> names, List<String> patterns) {
        return new RecorderOptions(
                enabled,
                root,
                run,
                closingLine,
                strayLinesToOnlyTest,
                names,
                patterns,
                linkPatterns,
                logging,
                adapters);
    }

    public RecorderOptions withLinkPatterns(List<LinkPattern> patterns) {
        return new RecorderOptions(
                enabled,
                root,
                run,
                closingLine,
                strayLinesToOnlyTest,
                secretNames,
                secretPatterns,
                patterns,
                logging,
                adapters);
    }

    public RecorderOptions withLogging(Logging limits) {
        return new RecorderOptions(
                enabled,
                root,
                run,
                closingLine,
                strayLinesToOnlyTest,
                secretNames,
                secretPatterns,
                linkPatterns,
                limits,
                adapters);
    }

    public RecorderOptions withAdapters(Map<String, String> settings) {
        return new RecorderOptions(
                enabled,
                root,
                run,
                closingLine,
                strayLinesToOnlyTest,
                secretNames,
                secretPatterns,
                linkPatterns,
                logging,
                settings);
    }

    /** The folder that runs are made in where the build says no other. */
    public Path rootOrDefault() {
        return root == null ? Path.of(ResultsRoot.DEFAULT) : root;
    }

    /**
     * Turns a link's name into its address.
     *
     * @param name a regular expression for the whole name, such as {@code GARDEN-(\d+)}
     * @param address with {@code $0} for the name and {@code $1} for its first group
     */
    public record LinkPattern(String name, String address) {}

    /**
     * How much of what loggers write is kept.
     *
     * @param linesATest the most lines of one test; what is more is counted and said
     * @param charactersALine the most characters of one line; the rest is cut and said
     * @param console whether the standard streams are kept too; they are printed all the same
     */
    public record Logging(int linesATest, int charactersALine, boolean console) {
        /** What holds where nothing was set. */
        public static Logging defaults() {
            return new Logging(10_000, 20_000, false);
        }
    }
}
