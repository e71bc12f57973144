package dev.verbale.engine.run;

import dev.verbale.ci.CiSystem;
import java.io.IOException;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.TimeZone;

/** What is known of the run before it begins. Never the whole environment: it holds secrets. */
final class RunFacts {

    private RunFacts() {}

    public static Map<String, String> gather() {
        Map<String, String> facts = new LinkedHashMap<>();
        facts.put("host", host());
        facts.put("os", property("os.name") + " " + property("os.version") + " " + property("os.arch"));
        facts.put("java", property("java.runtime.version") + " (" + property("java.vm.name") + ")");
        facts.put("processors", String.valueOf(Runtime.getRuntime().availableProcessors()));
        facts.put("time zone", TimeZone.getDefault().getID());
        facts.put("locale", Locale.getDefault().toLanguageTag());
        facts.put("started by", startedBy());
        GitFacts.gather(Path.of("").toAbsolutePath(), facts);
        addCi(System.getenv(), facts);
        return facts;
    }

    /** A job knows its branch better than its working tree, which is seldom on one; which commit that is at it knows best itself. */
    static void addCi(Map<String, String> environment, Map<String, String> facts) {
        CiSystem.of(environment).ifPresent(system -> {
            Map<String, String> known = system.facts(environment);
            String commit = known.remove(CiSystem.COMMIT);
            if (commit != null) facts.putIfAbsent(CiSystem.COMMIT, commit);
            facts.putAll(known);
        });
    }

    static String startedBy() {
        String command = property("sun.java.command");
        if (command.contains("surefire")) return "Maven";
        if (System.getProperty("org.gradle.test.worker") != null) return "Gradle";
        if (command.contains("com.intellij") || command.contains("org.eclipse")) return "IDE";
        return "java";
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
