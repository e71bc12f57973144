package dev.verbale.engine.settings;

import dev.verbale.RecorderOptions;
import dev.verbale.RecorderOptions.LinkPattern;
import dev.verbale.RecorderOptions.Logging;
import dev.verbale.event.FactStated;
import dev.verbale.folder.ResultsRoot;
import dev.verbale.spi.Setting;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * Reads the settings once: system property, environment, {@code verbale.properties} on the class path, default. The first
 * found wins. A bad one is a problem, and its default is used: a suite must not fail because of a typing mistake in here.
 */
public final class Settings {

    private static final String FILE = "verbale.properties";

    /** A key that so many changes turn into a known one was most likely meant to be that. */
    private static final int SLIPS_OF_A_FINGER = 3;

    /** Names of somebody's own choice, and what a build plugin hands down. */
    private static final List<String> OTHERS = List.of(CoreSettings.LINK, CoreSettings.FACT, "verbale.build.");

    private final Properties system;
    private final Map<String, String> environment;
    private final Properties file;
    private final List<Setting> ofAdapters;
    private final List<String> problems = new ArrayList<>();

    Settings(Properties system, Map<String, String> environment, Properties file, List<Setting> ofAdapters) {
        this.system = system;
        this.environment = environment;
        this.file = file;
        this.ofAdapters = ofAdapters;
    }

    /** @param ofAdapters the settings of the adapters that are there */
    public static Settings ofThisJvm(List<Setting> ofAdapters) {
        var settings = new Settings(System.getProperties(), System.getenv(), new Properties(), ofAdapters);
        settings.loadFile();
        return settings;
    }

    private void loadFile() {
        ClassLoader loader = Thread.currentThread().getContextClassLoader();
        if (loader == null) loader = Settings.class.getClassLoader();
        try (InputStream in = loader.getResourceAsStream(FILE)) {
            if (in != null) file.load(in);
        } catch (IOException | IllegalArgumentException unreadable) {
            problems.add(FILE + ": cannot be read (" + unreadable.getMessage() + "). Using the defaults.");
        }
    }

    public RecorderOptions options() {
        reportUnknownKeys();
        RecorderOptions defaults = RecorderOptions.defaults();
        Logging logging = defaults.logging();
        return defaults.withEnabled(onOff(CoreSettings.ENABLED, defaults.enabled()))
                .withRoot(root())
                .withRun(run())
                .withSummaryLine(onOff(CoreSettings.SUMMARY_LINE, defaults.summaryLine()))
                .withAdoptOrphans(onOff(CoreSettings.ADOPT_ORPHANS, defaults.adoptOrphans()))
                .withSecrets(list(CoreSettings.SECRET_NAMES), list(CoreSettings.SECRET_PATTERNS))
                .withLinkPatterns(links())
                .withLogging(new Logging(
                        number(CoreSettings.LOG_LINES, logging.linesATest()),
                        number(CoreSettings.LOG_CHARACTERS, logging.charactersALine()),
                        onOff(CoreSettings.CONSOLE, logging.console())))
                .withSettings(others());
    }

    /** Facts that the suite states of itself, from {@code verbale.tags} and {@code verbale.fact.NAME}. */
    public Map<String, String> facts() {
        Map<String, String> facts = new TreeMap<>();
        List<String> tags = list(CoreSettings.TAGS);
        if (!tags.isEmpty()) facts.put(FactStated.TAGS, String.join(", ", new LinkedHashSet<>(tags)));
        String prefix = CoreSettings.FACT;
        for (String key : keys())
            if (key.startsWith(prefix))
                find(key).ifPresent(found -> facts.put(key.substring(prefix.length()), found.value()));
        return facts;
    }

    /** What is asked for by its setting when it is needed. */
    private Map<String, String> others() {
        Map<String, String> values = new TreeMap<>();
        List<Setting> asked = new ArrayList<>(ofAdapters);
        asked.addAll(List.of(
                CoreSettings.MODULE, CoreSettings.EXCHANGE_BYTES, CoreSettings.TRACE_SEND, CoreSettings.TRACE_ADDRESS));
        for (Setting setting : asked) {
            Optional<FoundValue> found = find(setting.key());
            if (found.isEmpty() || found.get().value().isEmpty()) continue;
            if (setting.allows(found.get().value()))
                values.put(setting.key(), found.get().value());
            else
                problems.add(found.get().text() + ": not " + setting.allowedText() + ". Using "
                        + (setting.fallback().isEmpty() ? "none" : setting.fallback()) + ".");
        }
        return values;
    }

    private List<LinkPattern> links() {
        List<LinkPattern> links = new ArrayList<>();
        for (String key : keys()) {
            if (!key.startsWith(CoreSettings.LINK)) continue;
            FoundValue found = find(key).orElseThrow();
            String[] parts = found.value().split("\\s+");
            if (parts.length == 2) links.add(new LinkPattern(parts[0], parts[1]));
            else
                problems.add(found.text() + ": not a pattern and an address. It links nothing. "
                        + "Write, for example, GARDEN-\\\\d+ https://tracker.example/$0");
        }
        return links;
    }

    /** In system properties and the file; the environment has no lists of keys of its own. */
    private Set<String> keys() {
        Set<String> keys = new TreeSet<>(file.stringPropertyNames());
        for (String key : system.stringPropertyNames()) if (key.startsWith("verbale.")) keys.add(key);
        return keys;
    }

    /**
     * A key that is nobody's may belong to an adapter that is not in this module, and is not refused, unless it is nearly a
     * known one, or stands in a group that is the recorder's own.
     */
    private void reportUnknownKeys() {
        List<String> known = new ArrayList<>();
        for (Setting setting : CoreSettings.ALL) known.add(setting.key());
        for (Setting setting : ofAdapters) known.add(setting.key());
        for (String key : keys()) {
            if (known.contains(key) || OTHERS.stream().anyMatch(key::startsWith)) continue;
            String similar = SimilarWord.to(key, known);
            if (SimilarWord.distance(key, similar) <= slips(key) || isInKnownGroup(key, known))
                problems.add(key + ": there is no such setting. Did you mean " + similar + "?");
        }
    }

    /** In a short word few letters can be wrong, or it is another one. */
    private static int slips(String key) {
        int letters = key.length() - "verbale.".length();
        return Math.max(1, Math.min(SLIPS_OF_A_FINGER, letters / 3));
    }

    private static boolean isInKnownGroup(String key, List<String> known) {
        int group = key.indexOf('.', key.indexOf('.') + 1);
        if (group < 0) return false; // a build may have a verbale.version of its own
        String prefix = key.substring(0, group + 1);
        return known.stream().anyMatch(one -> one.startsWith(prefix));
    }

    private List<String> list(Setting setting) {
        Optional<FoundValue> found = find(setting.key());
        if (found.isEmpty()) return List.of();
        return Arrays.stream(found.get().value().split("\\s*[,\\n]\\s*"))
                .filter(part -> !part.isEmpty())
                .toList();
    }

    private int number(Setting setting, int fallback) {
        Optional<FoundValue> found = find(setting.key());
        if (found.isEmpty()) return fallback;
        if (setting.allows(found.get().value()))
            return Integer.parseInt(found.get().value());
        problems.add(found.get().text() + ": not " + setting.allowedText() + ". Using " + fallback + ".");
        return fallback;
    }

    /** What was wrong, each with its source and what is done instead. */
    public List<String> problems() {
        return List.copyOf(problems);
    }

    private @Nullable Path root() {
        Optional<FoundValue> found = find(CoreSettings.ROOT.key());
        if (found.isEmpty()) return null;
        try {
            return Path.of(found.get().value());
        } catch (InvalidPathException bad) {
            problems.add(found.get().text() + ": not a path. Using " + ResultsRoot.DEFAULT + ".");
            return null;
        }
    }

    private @Nullable String run() {
        Optional<FoundValue> found = find(CoreSettings.RUN.key());
        if (found.isEmpty()) return null;
        String name = found.get().value();
        boolean plain = name.matches("[\\p{L}\\p{N}][\\p{L}\\p{N}._-]{0,99}");
        if (plain) return name;
        problems.add(found.get().text() + ": not a folder's name. Using a new run. "
                + "Write letters, digits, dots, hyphens and underscores, 100 at most.");
        return null;
    }

    private boolean onOff(Setting setting, boolean fallback) {
        Optional<FoundValue> found = find(setting.key());
        if (found.isEmpty()) return fallback;
        switch (found.get().value().toLowerCase(Locale.ROOT)) {
            case "true", "on":
                return true;
            case "false", "off":
                return false;
            default:
                problems.add(found.get().text() + ": neither true nor false. Using " + fallback + ".");
                return fallback;
        }
    }

    private Optional<FoundValue> find(String key) {
        String value = system.getProperty(key);
        if (value != null) return Optional.of(new FoundValue(key, value.strip(), "system property"));
        String inEnvironment = Setting.inEnvironment(key);
        value = environment.get(inEnvironment);
        if (value != null) return Optional.of(new FoundValue(inEnvironment, value.strip(), "environment"));
        value = file.getProperty(key);
        if (value != null) return Optional.of(new FoundValue(key, value.strip(), FILE));
        return Optional.empty();
    }
}
