package dev.verbale.internal;

import dev.verbale.recorder.RecorderOptions;
import dev.verbale.recorder.RecorderOptions.LinkPattern;
import dev.verbale.recorder.RecorderOptions.Logging;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * Reads the settings once: system property, environment, {@code verbale.properties} on the class path, default. The first
 * found wins. A bad one is told, and its default is used: a suite must not fail because of a typing mistake in here.
 */
final class Settings {

    static final String ENABLED = "verbale.enabled";
    static final String ROOT = "verbale.root";
    static final String RUN = "verbale.run";
    static final String CLOSING_LINE = "verbale.closingLine";
    static final String STRAY_LINES = "verbale.strayLinesToOnlyTest";
    static final String SECRET_NAMES = "verbale.secret.names";
    static final String SECRET_PATTERNS = "verbale.secret.patterns";
    static final String LOG_LINES = "verbale.log.lines";
    static final String LOG_CHARACTERS = "verbale.log.characters";
    static final String CONSOLE = "verbale.console";
    static final String EXCHANGE_BYTES = "verbale.exchange.bytes";
    static final String TRACE_SEND = "verbale.trace.send";
    static final String TRACE_ADDRESS = "verbale.trace.address";

    /** Followed by a name of the suite's own choice. */
    static final String LINK = "verbale.link.";

    /** Followed by a name of the suite's own choice. */
    static final String FACT = "verbale.fact.";

    /** Every setting there is, in the order of the guide's table. */
    static final List<String> ALL = List.of(
            ENABLED,
            ROOT,
            RUN,
            CLOSING_LINE,
            STRAY_LINES,
            SECRET_NAMES,
            SECRET_PATTERNS,
            LOG_LINES,
            LOG_CHARACTERS,
            CONSOLE,
            EXCHANGE_BYTES,
            TRACE_SEND,
            TRACE_ADDRESS,
            "verbale.junit.inner-launches",
            "verbale.browser.steps",
            "verbale.browser.exchanges",
            "verbale.browser.filmstrip",
            "verbale.browser.fullPage",
            "verbale.browser.lastLook",
            "verbale.browser.seconds",
            "verbale.pictures.update",
            "verbale.video",
            "verbale.video.ffmpeg");

    /** The settings of adapters, which ask for them by their names. */
    private static final List<String> OF_ADAPTERS = List.of(
            "verbale.junit.",
            "verbale.exchange.",
            "verbale.trace.",
            "verbale.browser.",
            "verbale.video",
            "verbale.pictures.");

    private static final String FILE = "verbale.properties";

    private final Properties system;
    private final Map<String, String> environment;
    private final Properties file;
    private final List<String> problems = new ArrayList<>();

    Settings(Properties system, Map<String, String> environment, Properties file) {
        this.system = system;
        this.environment = environment;
        this.file = file;
    }

    static Settings ofThisJvm() {
        var settings = new Settings(System.getProperties(), System.getenv(), new Properties());
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

    RecorderOptions options() {
        unknownKeys();
        RecorderOptions options = RecorderOptions.defaults();
        Logging logging = options.logging();
        options = options.withEnabled(onOff(ENABLED, options.enabled()))
                .withClosingLine(onOff(CLOSING_LINE, options.closingLine()))
                .withStrayLinesToOnlyTest(onOff(STRAY_LINES, options.strayLinesToOnlyTest()))
                .withSecrets(list(SECRET_NAMES), list(SECRET_PATTERNS))
                .withLinkPatterns(links())
                .withAdapters(adapters())
                .withLogging(new Logging(
                        number(LOG_LINES, logging.linesATest()),
                        number(LOG_CHARACTERS, logging.charactersALine()),
                        onOff(CONSOLE, logging.console())));
        Optional<Setting> root = find(ROOT);
        if (root.isPresent()) options = root(options, root.get());
        Optional<Setting> run = find(RUN);
        if (run.isPresent()) options = run(options, run.get());
        return options;
    }

    /** Facts that the suite states of itself, from {@code verbale.fact.NAME}. */
    Map<String, String> facts() {
        Map<String, String> facts = new TreeMap<>();
        for (String key : keys())
            if (key.startsWith(FACT)) find(key).ifPresent(s -> facts.put(key.substring(FACT.length()), s.value()));
        return facts;
    }

    private Map<String, String> adapters() {
        Map<String, String> settings = new TreeMap<>();
        for (String key : ALL)
            if (OF_ADAPTERS.stream().anyMatch(key::startsWith)) find(key).ifPresent(s -> settings.put(key, s.value()));
        return settings;
    }

    private List<LinkPattern> links() {
        List<LinkPattern> links = new ArrayList<>();
        for (String key : keys()) {
            if (!key.startsWith(LINK)) continue;
            Setting setting = find(key).orElseThrow();
            String[] parts = setting.value().split("\\s+");
            if (parts.length == 2) links.add(new LinkPattern(parts[0], parts[1]));
            else
                problems.add(setting.said() + ": not a pattern and an address. It links nothing. "
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

    private void unknownKeys() {
        for (String key : keys()) {
            boolean known = ALL.contains(key) || key.startsWith(LINK) || key.startsWith(FACT);
            if (!known)
                problems.add(key + ": there is no such setting. Did you mean " + SimilarWord.to(key, ALL) + "?");
        }
    }

    private List<String> list(String key) {
        return find(key)
                .map(found -> Arrays.stream(found.value().split("\\s*[,\\n]\\s*"))
                        .filter(part -> !part.isEmpty())
                        .toList())
                .orElse(List.of());
    }

    private int number(String key, int otherwise) {
        Optional<Setting> found = find(key);
        if (found.isEmpty()) return otherwise;
        if (found.get().value().matches("\\d{1,9}"))
            return Integer.parseInt(found.get().value());
        problems.add(found.get().said() + ": not a whole number. Using " + otherwise + ".");
        return otherwise;
    }

    /** What was wrong, each with its source and what is done instead. */
    List<String> problems() {
        return List.copyOf(problems);
    }

    private RecorderOptions root(RecorderOptions options, Setting setting) {
        try {
            return options.withRoot(Path.of(setting.value()));
        } catch (InvalidPathException bad) {
            problems.add(setting.said() + ": not a path. Using " + options.rootOrDefault() + ".");
            return options;
        }
    }

    private RecorderOptions run(RecorderOptions options, Setting setting) {
        String name = setting.value();
        boolean plain = name.matches("[\\p{L}\\p{N}][\\p{L}\\p{N}._-]{0,99}");
        if (plain) return options.withRun(name);
        problems.add(setting.said() + ": not a folder's name. Using a new run. "
                + "Write letters, digits, dots, hyphens and underscores, 100 at most.");
        return options;
    }

    private boolean onOff(String key, boolean otherwise) {
        Optional<Setting> found = find(key);
        if (found.isEmpty()) return otherwise;
        switch (found.get().value().toLowerCase(Locale.ROOT)) {
            case "true", "on":
                return true;
            case "false", "off":
                return false;
            default:
                problems.add(found.get().said() + ": neither true nor false. Using " + otherwise + ".");
                return otherwise;
        }
    }

    /** What a setting is called in the environment: {@code VERBALE_CLOSING_LINE}. */
    static String inEnvironment(String key) {
        return key.replace('.', '_')
                .replace('-', '_')
                .replaceAll("([a-z])([A-Z])", "$1_$2")
                .toUpperCase(Locale.ROOT);
    }

    private Optional<Setting> find(String key) {
        String inEnvironment = inEnvironment(key);
        String value = system.getProperty(key);
        if (value != null) return Optional.of(new Setting(key, value.strip(), "system property"));
        value = environment.get(inEnvironment);
        if (value != null) return Optional.of(new Setting(inEnvironment, value.strip(), "environment"));
        value = file.getProperty(key);
        if (value != null) return Optional.of(new Setting(key, value.strip(), FILE));
        return Optional.empty();
    }
}
