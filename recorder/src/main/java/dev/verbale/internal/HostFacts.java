package dev.verbale.internal;

import java.io.IOException;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;

/** What the machine and the JVM are. Never the environment: it holds secrets. */
final class HostFacts {

    private HostFacts() {}

    static Map<String, String> gather() {
        Map<String, String> facts = new LinkedHashMap<>();
        facts.put("host", host());
        facts.put("os", property("os.name") + " " + property("os.version") + " " + property("os.arch"));
        facts.put("java", property("java.runtime.version") + " (" + property("java.vm.name") + ")");
        facts.put("processors", String.valueOf(Runtime.getRuntime().availableProcessors()));
        facts.put("time zone", ZoneId.systemDefault().getId());
        facts.put("locale", Locale.getDefault().toLanguageTag());
        return facts;
    }

    private static String property(String name) {
        return System.getProperty(name, "unknown");
    }

    private static String host() {
        String name = System.getenv("HOSTNAME"); // asking the network for the own name can take seconds
        if (name == null) name = System.getenv("COMPUTERNAME");
        if (name != null && !name.isBlank()) return name;
        try {
            Path file = Path.of("/etc/hostname");
            if (Files.isReadable(file)) return Files.readString(file).strip();
            return InetAddress.getLocalHost().getHostName();
        } catch (IOException nameless) {
            return "unknown";
        }
    }
}
