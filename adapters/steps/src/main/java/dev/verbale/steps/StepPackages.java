package dev.verbale.steps;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * The packages whose methods the agent makes steps.
 *
 * @param packages by name, each with whether its public methods are steps without an annotation
 */
record StepPackages(Map<String, Boolean> packages) {

    private static final String PUBLIC = ":public";

    /** From the agent's argument; empty where it names none. */
    static Optional<StepPackages> parsed(@Nullable String argument) {
        Map<String, Boolean> packages = new LinkedHashMap<>();
        for (String part : argument == null ? new String[0] : argument.split(",")) {
            String name = part.strip();
            boolean all = name.endsWith(PUBLIC);
            if (all) name = name.substring(0, name.length() - PUBLIC.length());
            if (!name.isEmpty()) packages.put(name, all);
        }
        return packages.isEmpty() ? Optional.empty() : Optional.of(new StepPackages(packages));
    }

    boolean holds(String className) {
        return packages.keySet().stream().anyMatch(name -> className.startsWith(name + "."));
    }

    boolean recordsPublic(String className) {
        return packages.entrySet().stream().anyMatch(one -> one.getValue() && className.startsWith(one.getKey() + "."));
    }
}
