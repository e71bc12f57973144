package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.Failure;
import dev.verbale.results.SampleRun;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Where many tests fail in one place, what their stacks share stands once in a page, and each is shown and found whole. */
class SharedTextsPageTest {

    private static final int TESTS = 200;

    private static Chromium chromium;

    @TempDir
    Path root;

    private SampleRun sample;

    @BeforeAll
    static void open_the_browser() {
        chromium = new Chromium();
    }

    @AfterAll
    static void close_the_browser() {
        chromium.close();
    }

    @BeforeEach
    void record() throws Exception {
        sample = SampleRun.in(root, "run");
        for (int i = 0; i < TESTS; i++)
            sample.test(
                    "waters" + i,
                    Outcome.FAILED,
                    Failure.of("E", stack(i)).message("bed " + i + " is dry").build());
    }

    private static String stack(int test) {
        var stack = new StringBuilder("E: bed " + test + " is dry\n");
        for (int i = 0; i < 60; i++)
            stack.append("\tat lib.Frame")
                    .append(i)
                    .append(".run(Frame.java:")
                    .append(i * 7)
                    .append(")\n");
        return stack.append("\tat dev.orto.Bed")
                .append(test)
                .append(".close(Bed.java:9)\nCaused by: E: no <b>pump</b>\n")
                .toString();
    }

    /** As a reader copies it: folded parts are there too. */
    private static String shown() {
        return ((String) chromium.script("return document.querySelector('div.stack').textContent")).strip();
    }

    @Test
    void a_stack_is_shown_whole_and_its_test_is_found_by_any_line_of_it() throws Exception {
        Path index = Page.write(sample.read(), root.resolve("page"));

        for (String shared : List.of("page/data/tests", "page/data/failures"))
            assertThat(size(root.resolve(shared))).as(shared).isLessThan((long) TESTS * stack(0).length() / 3);
        chromium.open(index, "#/tests?find=Bed77.close");
        chromium.waitFor("return document.querySelectorAll('.row').length === 1");
        chromium.find("a.row-line").click();
        chromium.find("div.stack");
        assertThat(shown()).isEqualTo(stack(77).strip());

        chromium.open(index, "#/tests?find=" + "lib.Frame31.run%20bed%20is%20Bed5.close");
        chromium.waitFor("return document.querySelectorAll('.row').length === 1");
        assertThat(chromium.texts(".row .name")).containsExactly("waters5");
        chromium.open(index, "#/tests?find=lib.Frame31.run&group=nothing");
        chromium.waitFor("return document.body.innerText.includes('" + TESTS + " tests')");
    }

    @Test
    void in_one_file_it_is_as_whole() throws Exception {
        Path file = Page.writeSingleFile(sample.read(), root.resolve("page.html"), PageOptions.PLAIN, 0);

        chromium.open(file, "#/tests?find=waters9&group=nothing");
        chromium.find("a.row-line").click();
        chromium.find("div.stack");

        assertThat(shown()).isEqualTo(stack(9).strip());
    }

    @Test
    void what_is_missing_is_named_in_its_place_and_the_rest_is_shown() throws Exception {
        Path index = Page.write(sample.read(), root.resolve("page"));
        for (Path file : files(root.resolve("page/data/pieces"))) Files.delete(file);

        List<String> stacks = new ArrayList<>();
        for (int test : new int[] {50, 90, 130, 170}) { // whichever was written first has all in it
            chromium.open(index, "#/test/sample.waters" + test + "()");
            chromium.find("div.stack");
            assertThat(shown()).startsWith("E: bed " + test + " is dry").contains("Bed" + test + ".close");
            stacks.add(shown());
        }
        assertThat(stacks)
                .filteredOn(stack -> stack.contains("(it stands in data/pieces/0.js, which is missing)"))
                .hasSizeGreaterThan(1);
    }

    private static List<Path> files(Path folder) throws Exception {
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(Files::isRegularFile).toList();
        }
    }

    private static long size(Path folder) throws Exception {
        long size = 0;
        for (Path file : files(folder)) size += Files.size(file);
        return size;
    }
}
