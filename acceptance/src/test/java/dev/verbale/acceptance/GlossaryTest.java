package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.source.tree.ClassTree;
import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.MethodTree;
import com.sun.source.tree.VariableTree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.TreePathScanner;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * One word for one idea. The words at the end of {@code docs/glossary.md} are retired: no name in the sources carries one, and
 * no sentence that a person reads has one of those that are not also plain English.
 */
class GlossaryTest {

    /** Words that no identifier of ours carries, whichever way it is written: {@code filmStrip}, {@code film-strip}. */
    private static final Set<String> RETIRED_IN_NAMES = Set.of(
            "ledger",
            "film",
            "films",
            "filmstrip",
            "paper",
            "papers",
            "picture",
            "pictures",
            "chapter",
            "chapters",
            "note",
            "notes",
            "noted",
            "promise",
            "promises",
            "promised",
            "announce",
            "announces",
            "announced",
            "announcement",
            "narrate",
            "narrated",
            "narrator",
            "narration",
            "place",
            "places",
            "occurrence",
            "occurrences",
            "heard",
            "told",
            "tell",
            "tells",
            "telling",
            "said",
            "took",
            "most",
            "otherwise",
            "chance",
            "seat",
            "stay",
            "desk",
            "rehearsal",
            "camera",
            "darkroom",
            "eyes",
            "glance",
            "slip",
            "easel",
            "shelf",
            "turning");

    /** Words that no sentence has: in the trade they mean nothing, and in plain English nobody needs them here. */
    private static final Pattern RETIRED_IN_PROSE = Pattern.compile(
            "\\b(ledger|film(?:ed|s|ing|strip)?|papers?|darkroom|easel|narrat\\w*|announc\\w*|rehears\\w*|pictures?|chapters?"
                    + "|--to|--earlier|--most|took the minutes|takes the minutes)\\b",
            Pattern.CASE_INSENSITIVE);

    /** What may stand although a word in it is retired. Each has its reason. */
    private static final List<Pattern> ALLOWED = List.of(
            // ECMAScript's class
            Pattern.compile("\\bPromise\\b"),
            // what the product's name means, once
            Pattern.compile("Verbale takes the minutes of a Java test run"),
            // an architecture document has one picture; the HTML element
            Pattern.compile("the (?:one )?picture\\b|<picture>"));

    @Test
    void no_name_in_the_java_sources_is_a_retired_one() {
        assertThat(retiredNames(javaSources().toList())).isEmpty();
    }

    @Test
    void no_name_in_the_page_is_a_retired_one() {
        List<String> found = new ArrayList<>();
        files("report/src/main/page", ".ts", ".tsx", ".css").forEach(file -> {
            int number = 0;
            for (String line : read(file).split("\n")) {
                number++;
                Matcher name = Pattern.compile("[A-Za-z][\\w$-]*").matcher(withoutAllowed(withoutComment(line)));
                while (name.find()) {
                    if (retired(name.group())) {
                        found.add(at(file, number) + name.group());
                    }
                }
            }
        });
        assertThat(found).isEmpty();
    }

    @Test
    void no_sentence_has_a_retired_word() {
        List<String> found = new ArrayList<>();
        Stream.of(
                        files("", ".md"),
                        files("bin", ""),
                        files("report/src/main/page", ".ts", ".tsx", ".css", ".html"),
                        files("", "pom.xml"),
                        files("", ".properties"),
                        javaSources())
                .flatMap(each -> each)
                .forEach(file -> found.addAll(retiredSentences(file)));
        assertThat(found).isEmpty();
    }

    @Test
    void no_file_is_named_by_a_retired_word() {
        assertThat(files("", "").filter(file -> retired(file.getFileName().toString())))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "filmStrip, true",
        "FILM_STRIP, true",
        "film-strip, true",
        "PromisedAttachment, true",
        "replace, false",
        "almost, false",
        "placeholder, false",
        "notes, true",
        "HTTPNote, true"
    })
    void a_name_is_read_word_by_word(String name, boolean retired) {
        assertThat(retired(name)).isEqualTo(retired);
    }

    private static List<String> retiredNames(List<Path> sources) {
        List<String> found = new ArrayList<>();
        var compiler = ToolProvider.getSystemJavaCompiler();
        try (var files = compiler.getStandardFileManager(null, null, null)) {
            JavacTask task = (JavacTask)
                    compiler.getTask(null, files, null, null, null, files.getJavaFileObjectsFromPaths(sources));
            for (CompilationUnitTree unit : task.parse()) {
                String file = unit.getSourceFile().getName();
                new TreePathScanner<Void, Void>() {
                    @Override
                    public Void visitClass(ClassTree tree, Void none) {
                        look(tree.getSimpleName());
                        return super.visitClass(tree, none);
                    }

                    @Override
                    public Void visitMethod(MethodTree tree, Void none) {
                        // The name of a test is a sentence, and is read as one.
                        if (tree.getName().chars().noneMatch(letter -> letter == '_')) {
                            look(tree.getName());
                        }
                        return super.visitMethod(tree, none);
                    }

                    @Override
                    public Void visitVariable(VariableTree tree, Void none) {
                        look(tree.getName());
                        return super.visitVariable(tree, none);
                    }

                    private void look(CharSequence name) {
                        if (retired(name.toString())) {
                            found.add(file + ": " + name);
                        }
                    }
                }.scan(unit, null);
            }
        } catch (IOException cannot) {
            throw new UncheckedIOException(cannot);
        }
        return found;
    }

    private static List<String> retiredSentences(Path file) {
        String text = read(file);
        if (file.endsWith("docs/glossary.md")) {
            text = text.substring(0, text.indexOf("## Retired"));
        }
        List<String> found = new ArrayList<>();
        int number = 0;
        for (String line : text.split("\n")) {
            number++;
            Matcher word = RETIRED_IN_PROSE.matcher(withoutAllowed(line).replace('_', ' '));
            while (word.find()) {
                found.add(at(file, number) + word.group());
            }
        }
        return found;
    }

    private static boolean retired(String name) {
        String spaced = name.replaceAll("([a-z0-9])([A-Z])", "$1 $2").replaceAll("([A-Z])([A-Z][a-z])", "$1 $2");
        return Stream.of(spaced.toLowerCase(Locale.ROOT).split("[^a-z]+")).anyMatch(RETIRED_IN_NAMES::contains);
    }

    private static String withoutAllowed(String line) {
        String left = line;
        for (Pattern allowed : ALLOWED) {
            left = allowed.matcher(left).replaceAll("");
        }
        return left;
    }

    /** Comments are prose: {@link #no_sentence_has_a_retired_word()} reads them. */
    private static String withoutComment(String line) {
        return line.replaceAll("//.*|^\\s*/?\\*.*|/\\*.*?\\*/|\"[^\"]*\"|`[^`]*`", "");
    }

    private static String at(Path file, int line) {
        return Checkout.ROOT.relativize(file) + ":" + line + ": ";
    }

    private static Stream<Path> javaSources() {
        return files("", ".java").filter(file -> !file.endsWith("GlossaryTest.java"));
    }

    private static Stream<Path> files(String directory, String... endings) {
        return Checkout.files().stream()
                .filter(file -> file.startsWith(Checkout.ROOT.resolve(directory)))
                .filter(file -> Stream.of(endings).anyMatch(file.toString()::endsWith));
    }

    private static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException cannot) {
            throw new UncheckedIOException(cannot);
        }
    }
}
