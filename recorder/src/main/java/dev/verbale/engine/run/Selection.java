package dev.verbale.engine.run;

import dev.verbale.ci.CiSystem;
import dev.verbale.event.FactStated;
import java.util.List;
import java.util.Map;
import java.util.StringJoiner;
import java.util.TreeMap;

/**
 * Which part of the suite this JVM's build was asked for, where it was not all of it: by the properties that builds and frameworks hand to
 * the JVM of the tests, and by the variables of a CI job that runs several times side by side. What a build file always leaves out is no
 * selection, and is not handed on.
 */
public final class Selection {

    /** Of Surefire, Failsafe and Cucumber. */
    private static final List<String> PROPERTIES = List.of(
            "test",
            "it.test",
            "groups",
            "excludedGroups",
            "surefire.includesFile",
            "surefire.excludesFile",
            "failsafe.includesFile",
            "failsafe.excludesFile",
            "cucumber.features",
            "cucumber.filter.name",
            "cucumber.filter.tags");

    private static final int LONGEST = 200;

    private Selection() {}

    /** The facts {@link FactStated#SELECTION} and {@link FactStated#SHARD}; each only where it is so. */
    public static Map<String, String> ofThisJvm() {
        Map<String, String> facts = new TreeMap<>();
        String asked = asked();
        if (!asked.isEmpty()) facts.put(FactStated.SELECTION, asked);
        String shard = CiSystem.of(System.getenv())
                .map(system -> system.shard(System.getenv()))
                .orElse("");
        if (!shard.isEmpty()) facts.put(FactStated.SHARD, shard);
        return facts;
    }

    private static String asked() {
        boolean isMaven = RunFacts.startedBy().equals("Maven"); // elsewhere "test" may be anybody's property
        var asked = new StringJoiner(" ");
        String modules = BuildSettings.modules();
        if (modules != null) asked.add(modules);
        for (String name : PROPERTIES) {
            String value = isMaven || name.startsWith("cucumber.") ? System.getProperty(name) : null;
            if (value != null && !value.isBlank()) asked.add("-D" + name + "=" + value.strip());
        }
        String all = asked.toString();
        return all.substring(0, Math.min(LONGEST, all.length()));
    }
}
