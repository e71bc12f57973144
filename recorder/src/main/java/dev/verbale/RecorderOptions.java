package dev.verbale;

import dev.verbale.border.SafeCopies;
import dev.verbale.folder.ResultsRoot;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * How a run is recorded. Immutable; two that say the same are equal.
 *
 * <pre>{@code
 * RecorderOptions options = RecorderOptions.defaults().withRoot(Path.of("build/runs")).withSummaryLine(false);
 * Recorder recorder = Recorder.open(options);
 * }</pre>
 *
 * @since 0.2.0
 */
public final class RecorderOptions {

    private final boolean enabled;
    private final @Nullable Path root;
    private final @Nullable String run;
    private final boolean summaryLine;
    private final boolean adoptOrphans;
    private final List<String> secretNames;
    private final List<String> secretPatterns;
    private final List<LinkPattern> linkPatterns;
    private final Logging logging;
    private final Map<String, String> settings;

    private RecorderOptions(Draft draft) {
        enabled = draft.enabled;
        root = draft.root;
        run = draft.run;
        summaryLine = draft.summaryLine;
        adoptOrphans = draft.adoptOrphans;
        secretNames = SafeCopies.list(draft.secretNames);
        secretPatterns = SafeCopies.list(draft.secretPatterns);
        linkPatterns = SafeCopies.list(draft.linkPatterns);
        logging = draft.logging == null ? Logging.defaults() : draft.logging;
        settings = SafeCopies.textsByName(draft.settings);
    }

    /** What holds where nothing was set. */
    public static RecorderOptions defaults() {
        return new RecorderOptions(new Draft());
    }

    /** Whether it is recorded at all. */
    public boolean enabled() {
        return enabled;
    }

    /**
     * The folder that run folders are made in; null for {@code target/verbale} of the build, or of the folder that the JVM was
     * started in.
     */
    public @Nullable Path root() {
        return root;
    }

    /**
     * The name of the run folder to write to, made where it is not there; null for a new one, or for the one that the other
     * JVMs of the same build write to.
     */
    public @Nullable String run() {
        return run;
    }

    /** Whether the end of a run is said in one line on the standard output. */
    public boolean summaryLine() {
        return summaryLine;
    }

    /** Whether a line from a thread that belongs to no test is given to the test that runs, where there is just one. */
    public boolean adoptOrphans() {
        return adoptOrphans;
    }

    /** Words that the names of secret values end in, besides those that are known. */
    public List<String> secretNames() {
        return secretNames;
    }

    /** Regular expressions: group 1 of what matches is masked, or the whole where there is no group. */
    public List<String> secretPatterns() {
        return secretPatterns;
    }

    /** What turns the name of a link into its address. */
    public List<LinkPattern> linkPatterns() {
        return linkPatterns;
    }

    /** How much of what loggers write is kept. */
    public Logging logging() {
        return logging;
    }

    /** What else was set, by the setting's whole name; adapters ask for it. */
    public Map<String, String> settings() {
        return settings;
    }

    /** Whether anything is recorded. */
    public RecorderOptions withEnabled(boolean on) {
        Draft draft = draft();
        draft.enabled = on;
        return new RecorderOptions(draft);
    }

    /** Where run folders are made; null for {@code target/verbale}. */
    public RecorderOptions withRoot(@Nullable Path folder) {
        Draft draft = draft();
        draft.root = folder;
        return new RecorderOptions(draft);
    }

    /** The run folder to write to; null for a new one. */
    public RecorderOptions withRun(@Nullable String name) {
        Draft draft = draft();
        draft.run = name;
        return new RecorderOptions(draft);
    }

    /** Whether the end of the run is said on the standard output. */
    public RecorderOptions withSummaryLine(boolean on) {
        Draft draft = draft();
        draft.summaryLine = on;
        return new RecorderOptions(draft);
    }

    /** Whether lines of threads without a test go to the test that runs alone. */
    public RecorderOptions withAdoptOrphans(boolean on) {
        Draft draft = draft();
        draft.adoptOrphans = on;
        return new RecorderOptions(draft);
    }

    /** What is secret besides what is known. */
    public RecorderOptions withSecrets(List<String> names, List<String> patterns) {
        Draft draft = draft();
        draft.secretNames = names;
        draft.secretPatterns = patterns;
        return new RecorderOptions(draft);
    }

    /** What turns the names of links into addresses. */
    public RecorderOptions withLinkPatterns(List<LinkPattern> patterns) {
        Draft draft = draft();
        draft.linkPatterns = patterns;
        return new RecorderOptions(draft);
    }

    /** How much of what loggers write is kept. */
    public RecorderOptions withLogging(Logging limits) {
        Draft draft = draft();
        draft.logging = limits;
        return new RecorderOptions(draft);
    }

    /** What else is set, by the whole name of a setting. */
    public RecorderOptions withSettings(Map<String, String> settings) {
        Draft draft = draft();
        draft.settings = settings;
        return new RecorderOptions(draft);
    }

    private Draft draft() {
        var draft = new Draft();
        draft.enabled = enabled;
        draft.root = root;
        draft.run = run;
        draft.summaryLine = summaryLine;
        draft.adoptOrphans = adoptOrphans;
        draft.secretNames = secretNames;
        draft.secretPatterns = secretPatterns;
        draft.linkPatterns = linkPatterns;
        draft.logging = logging;
        draft.settings = settings;
        return draft;
    }

    /** The folder that runs are made in where the build says no other. */
    public Path rootOrDefault() {
        return root == null ? Path.of(ResultsRoot.DEFAULT) : root;
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof RecorderOptions options && parts().equals(options.parts());
    }

    @Override
    public int hashCode() {
        return parts().hashCode();
    }

    @Override
    public String toString() {
        return "RecorderOptions" + parts();
    }

    private List<@Nullable Object> parts() {
        return Arrays.asList(
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

    /** The fields of options that are being made, to be changed one by one. */
    private static final class Draft {
        private boolean enabled = true;
        private @Nullable Path root;
        private @Nullable String run;
        private boolean summaryLine = true;
        private boolean adoptOrphans = true;
        private @Nullable List<String> secretNames;
        private @Nullable List<String> secretPatterns;
        private @Nullable List<LinkPattern> linkPatterns;
        private @Nullable Logging logging;
        private @Nullable Map<String, String> settings;
    }
}
