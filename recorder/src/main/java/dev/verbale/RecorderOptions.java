package dev.verbale;

import dev.verbale.border.SafeCopies;
import dev.verbale.folder.ResultsRoot;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * How a run is recorded.
 *
 * @param enabled whether it is recorded at all
 * @param root the folder that run folders are made in; null for {@code target/verbale} of the build, or of the folder that
 *     the JVM was started in
 * @param run the name of the run folder to write to, made where it is not there; null for a new one, or for the one that
 *     the other JVMs of the same build write to
 * @param summaryLine whether the end of a run is said in one line on the standard output
 * @param adoptOrphans whether a line from a thread that belongs to no test is given to the test that runs, where
 *     there is just one
 * @param secretNames words that the names of secret values end in, besides those that are known
 * @param secretPatterns regular expressions: group 1 of what matches is masked, or the whole where there is no group
 * @param linkPatterns what turns the name of a link into its address
 * @param logging how much of what loggers write is kept
 * @param settings what else was set, by the setting's whole name; adapters ask for it
 * @since 0.2.0
 */
public record RecorderOptions(
        boolean enabled,
        @Nullable Path root,
        @Nullable String run,
        boolean summaryLine,
        boolean adoptOrphans,
        List<String> secretNames,
        List<String> secretPatterns,
        List<LinkPattern> linkPatterns,
        Logging logging,
        Map<String, String> settings) {

    public RecorderOptions {
        settings = SafeCopies.textsByName(settings);
        secretNames = SafeCopies.list(secretNames);
        secretPatterns = SafeCopies.list(secretPatterns);
        linkPatterns = SafeCopies.list(linkPatterns);
        logging = logging == null ? Logging.defaults() : logging;
    }

    /** What holds where nothing was set. */
    public static RecorderOptions defaults() {
        return new RecorderOptions(
                true, null, null, true, true, List.of(), List.of(), List.of(), Logging.defaults(), Map.of());
    }

    public RecorderOptions withEnabled(boolean on) {
        return changed(draft -> draft.enabled = on);
    }

    public RecorderOptions withRoot(Path folder) {
        return changed(draft -> draft.root = folder);
    }

    public RecorderOptions withRun(@Nullable String name) {
        return changed(draft -> draft.run = name);
    }

    public RecorderOptions withSummaryLine(boolean on) {
        return changed(draft -> draft.summaryLine = on);
    }

    public RecorderOptions withAdoptOrphans(boolean on) {
        return changed(draft -> draft.adoptOrphans = on);
    }

    public RecorderOptions withSecrets(List<String> names, List<String> patterns) {
        return changed(draft -> {
            draft.secretNames = names;
            draft.secretPatterns = patterns;
        });
    }

    public RecorderOptions withLinkPatterns(List<LinkPattern> patterns) {
        return changed(draft -> draft.linkPatterns = patterns);
    }

    public RecorderOptions withLogging(Logging limits) {
        return changed(draft -> draft.logging = limits);
    }

    public RecorderOptions withSettings(Map<String, String> settings) {
        return changed(draft -> draft.settings = settings);
    }

    private RecorderOptions changed(Consumer<Draft> change) {
        var draft = new Draft(this);
        change.accept(draft);
        return draft.made();
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

    /** The same fields, to be changed one by one. */
    private static final class Draft {
        private boolean enabled;
        private @Nullable Path root;
        private @Nullable String run;
        private boolean summaryLine;
        private boolean adoptOrphans;
        private List<String> secretNames;
        private List<String> secretPatterns;
        private List<LinkPattern> linkPatterns;
        private Logging logging;
        private Map<String, String> settings;

        Draft(RecorderOptions options) {
            enabled = options.enabled;
            root = options.root;
            run = options.run;
            summaryLine = options.summaryLine;
            adoptOrphans = options.adoptOrphans;
            secretNames = options.secretNames;
            secretPatterns = options.secretPatterns;
            linkPatterns = options.linkPatterns;
            logging = options.logging;
            settings = options.settings;
        }

        RecorderOptions made() {
            return new RecorderOptions(
                    enabled,
                    root,
                    run,
                    summaryLine,
                    adoptOrphans,
                    secretNames,
                    secretPatterns,
                    linkPatterns,
                    logging,
                    settings);
        }
    }
}
