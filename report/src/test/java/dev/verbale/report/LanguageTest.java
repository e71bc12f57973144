package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The page in the language of who reads it: texts, dates and numbers. */
class LanguageTest {

    private static final Path SOURCES = Path.of("src/main/page/src");

    private static Chromium chromium;

    @TempDir
    Path root;

    private AdapterRecorder recorder;

    @BeforeAll
    static void open_the_browser() {
        chromium = new Chromium();
    }

    @AfterAll
    static void close_the_browser() {
        chromium.close();
    }

    @AfterEach
    void speak_english_again() {
        chromium.script("localStorage.clear()");
        speaks("en-GB");
    }

    private static void speaks(String language) {
        chromium.driver.executeCdpCommand(
                "Network.setUserAgentOverride", Map.of("userAgent", "a reader's browser", "acceptLanguage", language));
    }

    private Path page(Runnable recording) throws IOException {
        recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root.resolve("runs")).withSummaryLine(false));
        recording.run();
        return Page.write(RunReader.read(root.resolve("runs")), root.resolve("page"));
    }

    private void test(String name, TestEnd end) {
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("k." + name, name)
                        .className("sample.SeedsTest")
                        .methodName(name)
                        .tags(List.of("seeds"))
                        .build());
        recorder.startStep("open the shed").passed();
        recorder.exchange("GET", "http://orto.example/api/seeds").status(200).ended();
        recorder.endTest(test, end);
    }

    private void someOfAll() {
        test("grows", TestEnd.passed());
        test("waits", TestEnd.skipped("next season"));
        test("lends", TestEnd.threw(new AssertionError("nothing left")));
        test("turns", TestEnd.threw(new IllegalStateException("no water")));
        test("flowers", TestEnd.threw(new AssertionError("too early")));
        test("flowers", TestEnd.passed());
    }

    @Test
    void an_italian_reader_reads_italian() throws Exception {
        Path index = page(this::someOfAll);
        speaks("it-IT");

        chromium.open(index, "");

        assertThat(chromium.script("return document.documentElement.lang")).isEqualTo("it");
        assertThat(chromium.texts(".masthead nav a")).containsExactly("Riepilogo", "Test", "Worker", "Scambi");
        assertThat(chromium.text(".sentence"))
                .startsWith("2 di 5 test non sono passati: 1 fallito, 1 in errore, per 2 motivi."
                        + " 1 test è instabile: è passato a un tentativo successivo.");
        assertThat(chromium.texts(".counts li"))
                .containsExactly("1 in errore", "1 fallito", "1 saltato", "2 passati", "1 instabile");
        assertThat(chromium.text(".dateline")).matches("\\d+ \\p{L}{3} \\d{4}, .*");
        chromium.open(index, "#/test/k.lends");
        assertThat(chromium.text(".about b")).isEqualTo("fallito");
    }

    @Test
    void no_english_sentence_is_left_in_any_view() throws Exception {
        Path index = page(this::someOfAll);
        speaks("it");
        List<String> english = sentences();
        assertThat(english).hasSizeGreaterThan(100);

        for (String view : List.of(
                "",
                "#/tests",
                "#/workers",
                "#/exchanges",
                "#/test/k.lends",
                "#/test/k.flowers~2?beside=k.flowers",
                "#/test/run",
                "#/test/none")) {
            chromium.open(index, view);
            chromium.find("main h1, main .lines");
            chromium.script("for (const one of document.querySelectorAll('details')) one.open = true");
            String all = (String)
                    chromium.script(
                            "return [document.body.innerText, ...[...document.querySelectorAll('[aria-label],[title],[placeholder]')]"
                                    + ".flatMap(e => ['aria-label', 'title', 'placeholder'].map(a => e.getAttribute(a)))].join('\\n')");
            assertThat(english.stream().filter(text -> holds(all, text)).toList())
                    .as(view)
                    .isEmpty();
        }
    }

    /** As words: "to 10 ms" is no part of "ha lavorato 10 ms". */
    private static boolean holds(String all, String text) {
        return Pattern.compile("(?<!\\p{L})" + Pattern.quote(text)).matcher(all).find();
    }

    /** The English texts of three words and more, without what is put into them. */
    private static List<String> sentences() throws IOException {
        List<String> found = new ArrayList<>();
        Matcher keys = Pattern.compile("(?m)^  '((?:[^'\\\\]|\\\\.)+)':")
                .matcher(Files.readString(SOURCES.resolve("words/texts.ts")));
        while (keys.find()) {
            String text = keys.group(1);
            if (!text.contains("{") && text.strip().split(" ").length >= 3) found.add(text);
        }
        return found;
    }

    @Test
    void no_text_of_the_page_stands_outside_its_one_file() throws Exception {
        Pattern inAnElement = Pattern.compile(
                "<(?!code)([a-z][a-z0-9]*)(?:\\s[^<>]*)?>\\s*[^<>{}=;]*?[A-Za-z]{2}[^<>{}=;]*?\\s*</\\1>");
        Pattern alone = Pattern.compile("(?m)^\\s+[A-Z]?[a-z]+(?:,? [a-z]+){2,}[.:]?$");
        Pattern attribute = Pattern.compile("\\b(?:title|aria-label|placeholder|label)=\"[^\"]*[A-Za-z]{2}[^\"]*\"");
        try (Stream<Path> sources = Files.walk(SOURCES)) {
            for (Path source :
                    sources.filter(file -> file.toString().endsWith(".tsx")).toList()) {
                String text = Files.readString(source).replaceAll("(?s)/\\*.*?\\*/|//[^\\n]*", "");
                for (Pattern stray : List.of(inAnElement, alone, attribute))
                    assertThat(stray.matcher(text)
                                    .results()
                                    .map(found -> found.group().strip()))
                            .as(source.toString())
                            .isEmpty();
            }
        }
    }

    @Test
    void a_reader_can_choose_and_the_choice_is_remembered() throws Exception {
        Path index = page(this::someOfAll);
        speaks("de-DE,it");
        chromium.open(index, "");
        assertThat(chromium.text(".masthead nav a"))
                .as("the first one that the page speaks")
                .isEqualTo("Riepilogo");

        chromium.find(".language").click();
        assertThat(chromium.text(".masthead nav a")).isEqualTo("Summary");
        assertThat(chromium.text(".sentence")).startsWith("2 of 5 tests did not pass");
        chromium.open(index, "");
        assertThat(chromium.text(".masthead nav a")).isEqualTo("Summary");
        assertThat(chromium.script("return document.documentElement.lang")).isEqualTo("en");
    }

    @Test
    void dates_and_numbers_are_as_the_reader_writes_them() throws Exception {
        Path index = page(() -> {
            for (int i = 0; i < 1_200; i++) test("n" + i, TestEnd.passed());
        });

        speaks("en-US");
        chromium.open(index, "");
        assertThat(chromium.text(".counts b")).isEqualTo("1,200");
        assertThat(chromium.text(".dateline")).matches("\\p{L}{3} \\d+, \\d{4}.*");
        speaks("en-GB");
        chromium.open(index, "");
        assertThat(chromium.text(".dateline")).matches("\\d+ \\p{L}{3,4} \\d{4}.*");
        speaks("it-IT");
        chromium.open(index, "");
        assertThat(chromium.text(".sentence")).isEqualTo("Tutti i 1200 test sono passati.");
        chromium.open(index, "#/exchanges");
        assertThat(chromium.text("h1")).isEqualTo("1200 scambi");
    }

    @Test
    void the_italian_sentence_says_all_that_the_english_one_does() throws Exception {
        Path index = page(() -> {
            test("grows", TestEnd.passed());
            Scope broken = recorder.startContainer(
                    recorder.run(),
                    TestDescriptor.of("k.Rota", "Rota").className("sample.Rota").build());
            recorder.endContainer(broken, TestEnd.threw(new IllegalStateException("no week")), 3);
            recorder.startStep("sweep").failed(new IllegalStateException("no broom"));
        });
        speaks("it");
        chromium.open(index, "");

        assertThat(chromium.text(".sentence"))
                .isEqualTo(
                        "L’unico test è passato. \"Rota\" si è rotta fuori dai suoi test; 3 test non sono stati eseguiti."
                                + " 1 passo fuori dai test è fallito.");
    }
}
