package dev.verbale.changes;

import dev.verbale.results.selection.TestSelection;
import java.io.IOException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/**
 * The classes of tests that a change can affect: those that refer to a changed class, or to one that refers to it, and so on. Where that
 * cannot be seen in compiled classes, it is every test.
 *
 * @param everything whether all tests have to run
 * @param because why, one sentence for each file that asks for it; empty where {@code everything} is false
 * @param classes names of classes with tests, those of nested ones by the class around them; all where {@code everything} is true
 * @param outOf how many classes with tests there are
 * @since 0.2.0
 */
public record AffectedTests(boolean everything, List<String> because, Set<String> classes, int outOf) {

    private static final Pattern SOURCE = Pattern.compile(".*\\.(java|kt|groovy|scala)");

    public AffectedTests {
        because = List.copyOf(because);
        classes = Set.copyOf(classes);
    }

    /**
     * Of the project in {@code folder}, by its compiled classes.
     *
     * @param ignored patterns of files that affect no test, such as {@code docs/**}; by the rules of
     *     {@link java.nio.file.FileSystem#getPathMatcher}, from the repository's folder on
     * @throws ChangesException where a pattern is none, or classes are missing, or older than their changed source
     * @throws IOException where they cannot be read
     */
    public static AffectedTests of(Path folder, ChangedFiles changed, List<String> ignored)
            throws IOException, ChangesException {
        List<PathMatcher> patterns = new ArrayList<>();
        for (String pattern : ignored) patterns.add(matcher(pattern));
        List<String> files = changed.names().stream()
                .filter(name -> patterns.stream().noneMatch(pattern -> pattern.matches(Path.of(name))))
                .toList();
        CompiledClasses classes = CompiledClasses.in(folder);
        List<String> because = new ArrayList<>();
        Set<String> changedClasses = new TreeSet<>();
        for (String file : files) {
            Set<String> own = SOURCE.matcher(file).matches() ? classes.of(file) : Set.of();
            String reason = reason(changed.root(), file, own, classes);
            if (reason != null) because.add(reason);
            changedClasses.addAll(own);
        }
        Set<String> all = outermost(classes.tests());
        if (!because.isEmpty()) return new AffectedTests(true, because, all, all.size());
        Set<String> affected = new TreeSet<>(classes.affectedBy(changedClasses));
        affected.removeIf(name -> !classes.isTest(name));
        return new AffectedTests(false, List.of(), outermost(affected), all.size());
    }

    /**
     * All classes with tests of the project in {@code folder}.
     *
     * @throws ChangesException where it has no compiled class, or one that cannot be understood
     * @throws IOException where they cannot be read
     */
    public static AffectedTests all(Path folder) throws IOException, ChangesException {
        Set<String> all = outermost(CompiledClasses.in(folder).tests());
        return new AffectedTests(true, List.of(), all, all.size());
    }

    private static PathMatcher matcher(String pattern) throws ChangesException {
        try {
            return FileSystems.getDefault().getPathMatcher("glob:" + pattern);
        } catch (PatternSyntaxException broken) {
            throw new ChangesException("'" + pattern + "' is no pattern of files (" + broken.getDescription()
                    + "). Such a pattern is docs/** or *.md");
        }
    }

    /** Why all tests have to run because of this file; null where its dependents are enough. */
    private static @org.jspecify.annotations.Nullable String reason(
            Path root, String file, Set<String> own, CompiledClasses classes) throws IOException, ChangesException {
        Path source = root.resolve(file);
        if (!SOURCE.matcher(file).matches()) return file + " is no source of a class: what reads it cannot be seen";
        if (!Files.exists(source)) return file + " is gone: what was found by its classes' names cannot be seen";
        if (file.endsWith("package-info.java") || file.endsWith("module-info.java"))
            return file + " is about more than one class";
        if (own.isEmpty())
            throw new ChangesException(
                    "no class of " + file + " was found. Compile it first, as mvn test-compile does; or name "
                            + "it with --ignore, where it belongs to another project");
        for (String name : own) {
            if (classes.isOlderThan(name, source))
                throw new ChangesException(
                        file + " is newer than its class " + name + ". Compile it first, as mvn test-compile does");
            if (classes.hasConstants(name)) return name + " has constants, which the compiler copies without a trace";
            if (classes.isProvider(name)) return name + " is found by a service file, and who uses it cannot be seen";
        }
        boolean isAlone = own.stream().noneMatch(name -> classes.isTest(name) || classes.isReferredTo(name, own));
        return isAlone
                ? own.iterator().next() + " is referred to by no class, so that it may be found by its name"
                : null;
    }

    private static Set<String> outermost(Set<String> names) {
        Set<String> outermost = new TreeSet<>();
        for (String name : names) outermost.add(name.replaceFirst("(?<=.)\\$.*", ""));
        return outermost;
    }

    /** For a runner. */
    public TestSelection selection() {
        Map<String, Set<String>> methods = new TreeMap<>();
        for (String name : classes) methods.put(name, Set.of());
        return new TestSelection(methods, Map.of(), List.of());
    }
}
