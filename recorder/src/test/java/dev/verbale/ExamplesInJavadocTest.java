package dev.verbale;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.lang.reflect.Method;
import java.lang.reflect.Modifier;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whoever looks a call up in his editor sees how it is called, and what he copies from there compiles. */
class ExamplesInJavadocTest {

    private static final Path SOURCES = Path.of("src/main/java/dev/verbale");
    private static final Pattern EXAMPLE = Pattern.compile("<pre>\\{@code\\n(.*?)\\n\\s*\\* }</pre>", Pattern.DOTALL);
    private static final Pattern DOCUMENTED_CALL = Pattern.compile(
            "/\\*\\*((?:(?!\\*/).)*)\\*/\\s+(?:@\\w+\\S* )*public static [^=;{]* (\\w+)\\(", Pattern.DOTALL);

    /** What the examples speak of: a suite of the garden's. */
    private static final String GARDEN = """
            import static java.nio.charset.StandardCharsets.UTF_8;
            import static org.junit.jupiter.api.Assertions.assertEquals;

            import dev.verbale.*;
            import dev.verbale.spi.*;
            import dev.verbale.spi.ThrowableReader.Reading;
            import dev.verbale.vocabulary.*;
            import java.io.*;
            import java.lang.System.Logger.Level;
            import java.nio.file.Path;
            import java.time.Duration;
            import java.util.*;
            import java.util.concurrent.*;
            %s

            abstract class Example%d {
                interface RotaPage { void open(); void swap(int one, int other); String asCsv(); int days(); String ownerOf(int plot); }
                interface Gate { String token(); byte[] ask(byte[] question); InputStream log(); OutputStream out(); String state(); }
                interface Camera { byte[] image(); void whenDone(java.util.function.Consumer<Path> action); }
                interface Browser { String version(); }
                RotaPage rotaPage; Gate gate; Camera camera; Browser browser; EvidenceSource serverLog; Throwable failure; int beds;
                byte[] question; byte[] response; TestLifecycle lifecycle; AdapterRecorder recorder; Scope container; Scope test;
                java.awt.image.BufferedImage drawing;

                void copied() throws Throwable {
            %s
                }
            }
            """;

    @TempDir
    Path folder;

    @Test
    void each_example_compiles() throws Exception {
        List<String> files = new ArrayList<>();
        for (Path source : sources()) {
            for (MatchResult example :
                    EXAMPLE.matcher(Files.readString(source)).results().toList()) {
                String code = example.group(1).replaceAll("(?m)^\\s*\\* ?", "");
                String about = code.contains("@About(") ? "dev.verbale.About" : "dev.verbale.vocabulary.About";
                Path file = folder.resolve("Example" + files.size() + ".java");
                Files.writeString(file, GARDEN.formatted("import " + about + "; // of " + source, files.size(), code));
                files.add(file.toString());
            }
        }
        assertThat(files).hasSizeGreaterThan(40);

        var messages = new ByteArrayOutputStream();
        List<String> arguments = new ArrayList<>(
                List.of("-cp", System.getProperty("java.class.path"), "-proc:none", "-d", folder.toString()));
        arguments.addAll(files);
        int result =
                ToolProvider.getSystemJavaCompiler().run(null, messages, messages, arguments.toArray(String[]::new));

        assertThat(result).as(messages.toString(StandardCharsets.UTF_8)).isZero();
    }

    @Test
    void each_call_of_an_author_has_an_example_that_makes_it() throws Exception {
        String source = Files.readString(SOURCES.resolve("Verbale.java"));
        List<String> shown = new ArrayList<>();
        for (MatchResult call : DOCUMENTED_CALL.matcher(source).results().toList())
            if (call.group(1).contains("Verbale." + call.group(2) + "(")) shown.add(call.group(2));

        assertThat(shown)
                .containsExactlyInAnyOrderElementsOf(Arrays.stream(Verbale.class.getDeclaredMethods())
                        .filter(method -> Modifier.isPublic(method.getModifiers()))
                        .map(Method::getName)
                        .toList());
    }

    private static List<Path> sources() throws Exception {
        List<Path> found = new ArrayList<>();
        for (String folder : List.of("", "spi"))
            try (Stream<Path> files = Files.list(SOURCES.resolve(folder))) {
                files.filter(file -> file.toString().endsWith(".java")).forEach(found::add);
            }
        return found;
    }
}
