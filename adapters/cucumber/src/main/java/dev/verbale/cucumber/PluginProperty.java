package dev.verbale.cucumber;

import java.io.IOException;
import java.io.InputStream;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Properties;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Registers the plugin by the system property that Cucumber reads, beside those that are registered already. A system property
 * stands above the files that name plugins, so what they name is named once more.
 */
final class PluginProperty {

    private static final String KEY = "cucumber.plugin";
    private static final String PLUGIN = VerbalePlugin.class.getName();
    private static final List<String> FILES = List.of("junit-platform.properties", "cucumber.properties");

    private PluginProperty() {}

    /** @return what it was before; null where nothing was set */
    static @Nullable String set() {
        String before = System.getProperty(KEY);
        Set<String> plugins = new LinkedHashSet<>();
        if (before != null) add(before, plugins);
        else for (String file : FILES) add(ofFile(file), plugins);
        if (plugins.add(PLUGIN)) System.setProperty(KEY, String.join(",", plugins));
        return before;
    }

    /** As it was before. */
    static void restore(@Nullable String before) {
        if (before == null) System.clearProperty(KEY);
        else System.setProperty(KEY, before);
    }

    private static void add(String list, Set<String> plugins) {
        for (String plugin : list.split(",", -1)) if (!plugin.isBlank()) plugins.add(plugin.strip());
    }

    private static String ofFile(String file) {
        ClassLoader loader = Thread.currentThread().getContextClassLoader();
        try (InputStream in = loader == null ? null : loader.getResourceAsStream(file)) {
            var properties = new Properties();
            if (in != null) properties.load(in);
            return properties.getProperty(KEY, "");
        } catch (IOException | IllegalArgumentException unreadable) {
            return ""; // Cucumber says so itself
        }
    }
}
