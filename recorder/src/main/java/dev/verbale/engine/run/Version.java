package dev.verbale.engine.run;

import java.io.IOException;
import java.io.InputStream;
import java.util.Properties;

/** The version of this library, as the build wrote it down. */
public final class Version {

    private Version() {}

    public static String text() {
        var properties = new Properties();
        try (InputStream in = Version.class.getResourceAsStream("version.properties")) {
            if (in != null) properties.load(in);
        } catch (IOException unreadable) {
            // then it is unknown
        }
        return properties.getProperty("version", "unknown");
    }
}
