package dev.verbale.results.selection;

import dev.verbale.results.TestResult;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;

/**
 * Tests by what runners know them by. A row of data, or an attempt, stands for its method.
 *
 * @param methods by class, in the order of their names; a class without methods stands for all of its tests
 * @param scenarios lines by feature file, such as {@code dev/orto/rota.feature} and 14
 * @param unknown the ids of tests that no runner can be told of: they have neither class nor line
 * @since 0.2.0
 */
public record TestSelection(
        Map<String, Set<String>> methods, Map<String, Set<Integer>> scenarios, List<String> unknown) {

    /** What is no Java name, as Kotlin allows, would be taken apart by the runners. */
    private static final Pattern PLAIN = Pattern.compile("[\\p{L}\\p{N}_$]+");

    private static final Pattern IN_FEATURE = Pattern.compile("(.+\\.feature):(\\d{1,9})");

    public TestSelection {
        methods = Map.copyOf(methods);
        scenarios = Map.copyOf(scenarios);
        unknown = List.copyOf(unknown);
    }

    /** The tests that {@code tests} are attempts of. */
    public static TestSelection of(Collection<TestResult> tests) {
        Map<String, Set<String>> methods = new TreeMap<>();
        Map<String, Set<Integer>> scenarios = new TreeMap<>();
        Set<String> whole = new LinkedHashSet<>();
        Set<String> unknown = new LinkedHashSet<>();
        for (TestResult test : tests) {
            String type = test.className();
            String method = test.methodName();
            var line = IN_FEATURE.matcher(
                    test.identity().source() == null ? "" : test.identity().source());
            if (type != null) {
                methods.computeIfAbsent(type, key -> new TreeSet<>());
                if (method != null && PLAIN.matcher(method).matches())
                    methods.get(type).add(method);
                else whole.add(type);
            } else if (line.matches())
                scenarios.computeIfAbsent(line.group(1), key -> new TreeSet<>()).add(Integer.valueOf(line.group(2)));
            else unknown.add(test.key());
        }
        for (String type : whole) methods.put(type, Set.of());
        return new TestSelection(methods, scenarios, List.copyOf(unknown));
    }

    /** Whether no runner could be told of any test. */
    public boolean isEmpty() {
        return methods.isEmpty() && scenarios.isEmpty();
    }

    /** The classes of these tests, whole: much shorter where there are many tests. */
    public TestSelection byClass() {
        Map<String, Set<String>> classes = new LinkedHashMap<>();
        for (String type : methods.keySet()) classes.put(type, Set.of());
        return new TestSelection(classes, scenarios, unknown);
    }

    /** What Surefire and Failsafe take, such as {@code dev.orto.RotaTest#swaps+refuses,dev.orto.ShedTest}. */
    public String forSurefire() {
        List<String> classes = new ArrayList<>();
        new TreeMap<>(methods)
                .forEach((type, names) ->
                        classes.add(names.isEmpty() ? type : type + "#" + String.join("+", new TreeSet<>(names))));
        return String.join(",", classes);
    }

    /** What Cucumber takes, such as {@code classpath:dev/orto/rota.feature:14:20}, by {@code cucumber.features} or as arguments. */
    public List<String> forCucumber() {
        List<String> features = new ArrayList<>();
        new TreeMap<>(scenarios).forEach((feature, lines) -> {
            var text = new StringBuilder(feature.contains(":") ? feature : "classpath:" + feature);
            for (int line : new TreeSet<>(lines)) text.append(':').append(line);
            features.add(text.toString());
        });
        return features;
    }

    /** What TestNG's command line takes by {@code -methods}, such as {@code dev.orto.SeedTest.lends}. */
    public List<String> forTestNG() {
        List<String> all = new ArrayList<>();
        new TreeMap<>(methods).forEach((type, names) -> {
            if (names.isEmpty()) all.add(type + ".*");
            for (String name : new TreeSet<>(names)) all.add(type + "." + name);
        });
        return all;
    }

    /** What Gradle takes, one for each {@code --tests}. */
    public List<String> forGradle() {
        return forTestNG();
    }

    /**
     * What the console launcher of the JUnit Platform takes, from its version 1.12 on, one argument each. Parameters are not to be had of
     * every test, so that methods are named by patterns.
     */
    public List<String> forJUnitConsole() {
        List<String> all = new ArrayList<>();
        List<String> patterns = new ArrayList<>();
        new TreeMap<>(methods).forEach((type, names) -> {
            all.add("--select-class=" + type);
            String inClass = "--include-methodname=" + Pattern.quote(type) + "#";
            if (names.isEmpty()) patterns.add(inClass + ".*");
            for (String name : new TreeSet<>(names)) patterns.add(inClass + Pattern.quote(name) + "(\\(.*)?");
        });
        if (methods.values().stream().anyMatch(names -> !names.isEmpty())) all.addAll(patterns);
        new TreeMap<>(scenarios).forEach((feature, lines) -> {
            for (int line : new TreeSet<>(lines)) all.add("--select-resource=" + feature + "?line=" + line);
        });
        return all;
    }
}
