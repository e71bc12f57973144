package dev.verbale.internal;

import dev.verbale.recorder.RecorderOptions;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;

/**
 * Reads the settings once: system property, environment, {@code verbale.properties} on the class path, default. The first
 * found wins. A bad one is told, and its default is used: a suite must not fail because of a typing mistake in here.
 */
final class Settings {

    static final String ENABLED = "verbale.enabled";
    static final String ROOT = "verbale.root";
    static final String RUN = "verbale.run";
    static final String CLOSING_LINE = "verbale.closingLine";

    /** Every setting there is, in the order of the guide's table. */
    static final List<String> ALL = List.of(ENABLED, ROOT, RUN, CLOSING_LINE);

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
        RecorderOptions options = RecorderOptions.defaults();
        options = options.withEnabled(onOff(ENABLED, options.enabled()));
        options = options.withClosingLine(onOff(CLOSING_LINE, options.closingLine()));
        Optional<Setting> root = find(ROOT);
        if (root.isPresent()) options = root(options, root.get());
        Optional<Setting> run = find(RUN);
        if (run.isPresent()) options = run(options, run.get());
        return options;
    }

    /** What was wrong, each with its source and what is done instead. */
    List<String> problems() {
        return List.copyOf(problems);
    }

    private RecorderOptions root(RecorderOptions options, Setting setting) {
        try {
            return options.withRoot(Path.of(setting.value()));
        } catch (InvalidPathException bad) {
            problems.add(setting.said() + ": not a path. Using " + options.root() + ".");
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
        return key.replace('.', '_').replaceAll("([a-z])([A-Z])", "$1_$2").toUpperCase(Locale.ROOT);
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
