package dev.verbale.changes;

import io.github.classgraph.ClassGraph;
import io.github.classgraph.ClassInfo;
import io.github.classgraph.ClassInfoList;
import io.github.classgraph.FieldInfo;
import io.github.classgraph.MethodInfo;
import io.github.classgraph.ScanResult;
import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;

/** A project's compiled classes: of which source they are, what refers to them, which hold tests. */
final class CompiledClasses {

    /** Where Maven and Gradle put them. */
    private static final Set<String> MAIN = Set.of(
            "target/classes",
            "build/classes/java/main",
            "build/classes/kotlin/main",
            "build/classes/groovy/main",
            "build/classes/scala/main");

    private static final Set<String> TEST = Set.of(
            "target/test-classes",
            "build/classes/java/test",
            "build/classes/kotlin/test",
            "build/classes/groovy/test",
            "build/classes/scala/test");

    private static final Set<String> TEST_ANNOTATIONS = Set.of(
            "Test",
            "ParameterizedTest",
            "RepeatedTest",
            "TestFactory",
            "TestTemplate",
            "Property",
            "Example",
            "ArchTest",
            "Theory");

    private static final Set<String> PASSED_OVER = Set.of(".git", ".gradle", ".idea", "node_modules", "src");

    /** By package and file, such as {@code dev/orto/Shed.java}. */
    private final Map<String, Set<String>> bySource = new HashMap<>();

    private final Map<String, Set<String>> usedBy = new HashMap<>();
    private final Set<String> tests = new TreeSet<>();
    private final Set<String> withConstants = new HashSet<>();
    private final Set<String> providers = new HashSet<>();
    private final Map<String, Path> files = new HashMap<>();

    private CompiledClasses() {}

    /** Of all modules in {@code folder}. */
    static CompiledClasses in(Path folder) throws IOException, ChangesException {
        List<Path> main = new ArrayList<>();
        List<Path> test = new ArrayList<>();
        find(folder, main, test);
        if (test.isEmpty())
            throw new ChangesException("no compiled tests were found below " + folder
                    + ". Compile them first, as mvn test-compile does, and start this in the project's folder");
        var classes = new CompiledClasses();
        List<Path> all = new ArrayList<>(test);
        all.addAll(main);
        try (ScanResult scanned = new ClassGraph()
                .overrideClasspath(all)
                .enableClassInfo()
                .enableFieldInfo()
                .enableMethodInfo()
                .enableAnnotationInfo()
                .enableInterClassDependencies()
                .enableStaticFinalFieldConstantInitializerValues()
                .ignoreClassVisibility()
                .ignoreFieldVisibility()
                .ignoreMethodVisibility()
                .scan()) {
            for (ClassInfo one : scanned.getAllClasses()) classes.add(one, test);
            for (Map.Entry<ClassInfo, ClassInfoList> entry :
                    scanned.getClassDependencyMap().entrySet())
                for (ClassInfo used : entry.getValue())
                    classes.usedBy
                            .computeIfAbsent(used.getName(), name -> new HashSet<>())
                            .add(entry.getKey().getName());
        }
        for (Path one : all) classes.readProviders(one.resolve("META-INF/services"));
        return classes;
    }

    private static void find(Path folder, List<Path> main, List<Path> test) throws IOException {
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path at, BasicFileAttributes about) {
                String name = String.valueOf(at.getFileName());
                if (!at.equals(folder) && PASSED_OVER.contains(name)) return FileVisitResult.SKIP_SUBTREE;
                String inside = folder.relativize(at).toString().replace('\\', '/');
                if (ends(inside, MAIN)) main.add(at);
                else if (ends(inside, TEST)) test.add(at);
                else return isOther(inside) ? FileVisitResult.SKIP_SUBTREE : FileVisitResult.CONTINUE;
                return FileVisitResult.SKIP_SUBTREE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException unreadable) {
                return FileVisitResult.CONTINUE;
            }
        });
    }

    /** What else a build leaves: copies of projects, sometimes. */
    private static boolean isOther(String inside) {
        return inside.matches("(.*/)?(target|build)/(?!classes(/|$)).*");
    }

    private static boolean ends(String path, Set<String> ends) {
        return ends.stream().anyMatch(end -> path.equals(end) || path.endsWith("/" + end));
    }

    private void add(ClassInfo one, List<Path> test) {
        String name = one.getName();
        Path file = one.getClasspathElementFile().toPath().resolve(name.replace('.', '/') + ".class");
        files.put(name, file);
        String source = one.getSourceFile();
        if (source != null) {
            String inPackage = one.getPackageName().replace('.', '/');
            bySource.computeIfAbsent(inPackage.isEmpty() ? source : inPackage + "/" + source, key -> new TreeSet<>())
                    .add(name);
        }
        for (FieldInfo field : one.getDeclaredFieldInfo())
            if (field.isStatic()
                    && field.isFinal()
                    && !field.isPrivate()
                    && field.getConstantInitializerValue() != null) withConstants.add(name);
        boolean isTest =
                test.stream().anyMatch(file::startsWith) && !one.isAbstract() && !one.isInterface() && holdsTests(one);
        if (isTest) tests.add(name);
    }

    private static boolean holdsTests(ClassInfo one) {
        if (one.getSimpleName().matches("Test.*|.*(Test|Tests|TestCase|IT|ITCase)")) return true;
        for (MethodInfo method : one.getMethodInfo())
            if (method.getAnnotationInfo().stream()
                    .anyMatch(annotation ->
                            TEST_ANNOTATIONS.contains(annotation.getName().replaceFirst(".*[.$]", "")))) return true;
        return false;
    }

    /** Who is named in a service file is reached by nobody who could be seen. */
    private void readProviders(Path services) throws IOException {
        if (!Files.isDirectory(services)) return;
        try (Stream<Path> all = Files.list(services)) {
            for (Path file : all.filter(Files::isRegularFile).toList())
                for (String line : Files.readAllLines(file)) {
                    String name = line.replaceFirst("#.*", "").strip();
                    if (!name.isEmpty()) providers.add(name);
                }
        }
    }

    /** The classes of the source file with this name, which may begin with folders such as {@code src/main/java}. */
    Set<String> of(String source) {
        Set<String> found = new TreeSet<>();
        for (String end = source; ; end = end.substring(end.indexOf('/') + 1)) {
            found.addAll(bySource.getOrDefault(end, Set.of()));
            if (!found.isEmpty() || end.indexOf('/') < 0) break;
        }
        if (!found.isEmpty()) return found;
        // Kotlin, Groovy and Scala do not ask that a file lies in its package's folder.
        String name = source.substring(source.lastIndexOf('/') + 1);
        bySource.forEach((key, classes) -> {
            if (key.equals(name) || key.endsWith("/" + name)) found.addAll(classes);
        });
        return found;
    }

    boolean isOlderThan(String name, Path source) throws IOException {
        Path file = files.get(name);
        return file != null && Files.getLastModifiedTime(file).compareTo(Files.getLastModifiedTime(source)) < 0;
    }

    boolean hasConstants(String name) {
        return withConstants.contains(name);
    }

    boolean isProvider(String name) {
        return providers.contains(name);
    }

    boolean isTest(String name) {
        return tests.contains(name);
    }

    Set<String> tests() {
        return tests;
    }

    /** {@code names}, what refers to them, what refers to those, and so on. */
    Set<String> affectedBy(Set<String> names) {
        Set<String> affected = new HashSet<>(names);
        Deque<String> open = new ArrayDeque<>(names);
        while (!open.isEmpty())
            for (String next : usedBy.getOrDefault(open.remove(), Set.of())) if (affected.add(next)) open.add(next);
        return affected;
    }

    /** Whether any class of another source refers to it. */
    boolean isReferredTo(String name, Set<String> besides) {
        return usedBy.getOrDefault(name, Set.of()).stream().anyMatch(user -> !besides.contains(user));
    }
}
