package dev.verbale.engine.run;

import java.io.IOException;
import java.io.InputStream;
import java.net.URL;
import java.util.Collections;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/** Notices that parts of more than one version of this library are on the class path, which nobody wants and builds bring about. */
public final class OtherVersions {

    private static final String FILE = "dev/verbale/engine/run/version.properties";
    /** What to do about it. */
    public static final String ADVICE = ". Take all of them from one version, as with verbale-bom";

    private OtherVersions() {}

    /** That {@code loader} sees the recorder in several versions, where it does. */
    public static Optional<String> ofRecorder(@Nullable ClassLoader loader) {
        Map<String, String> jars = new TreeMap<>();
        try {
            for (URL url :
                    Collections.list(loader == null ? ClassLoader.getSystemResources(FILE) : loader.getResources(FILE)))
                jars.putIfAbsent(version(url), jar(url));
        } catch (IOException unreadable) {
            return Optional.empty(); // then nobody knows
        }
        if (jars.size() < 2) return Optional.empty();
        return Optional.of("Verbale's recorder is on the class path in " + jars.size() + " versions: " + jars + ADVICE);
    }

    private static String version(URL url) throws IOException {
        var properties = new Properties();
        var connection = url.openConnection();
        connection.setUseCaches(false); // or the jar would stay open
        try (InputStream in = connection.getInputStream()) {
            properties.load(in);
        }
        return properties.getProperty("version", "unknown");
    }

    private static String jar(URL url) {
        return url.toString().replace("!/" + FILE, "").replace("jar:", "");
    }

    /** That an adapter of ours is of another version than the recorder, where it is, and says so. */
    public static Optional<String> ofAdapter(Class<?> adapter) {
        if (!adapter.getName().startsWith("dev.verbale.")) return Optional.empty();
        return differing(adapter.getName(), adapter.getPackage().getImplementationVersion(), Version.text());
    }

    static Optional<String> differing(String adapter, @Nullable String version, String recorder) {
        if (version == null || version.equals(recorder)) return Optional.empty();
        return Optional.of("the adapter " + adapter + " is of version " + version + " and Verbale's recorder of "
                + recorder + ADVICE);
    }
}
