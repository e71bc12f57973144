package dev.verbale.cli;

import java.io.IOException;
import java.io.InputStream;
import java.util.Properties;
import picocli.CommandLine;

/** The version that the build wrote down. */
final class Version implements CommandLine.IVersionProvider {

    @Override
    public String[] getVersion() throws IOException {
        return new String[] {"Verbale " + number(), "Java " + Runtime.version() + " on " + System.getProperty("os.name")
        };
    }

    static String number() throws IOException {
        var properties = new Properties();
        try (InputStream in = Version.class.getResourceAsStream("version.properties")) {
            if (in != null) properties.load(in);
        }
        return properties.getProperty("version", "unknown");
    }
}
