package dev.verbale.results.brief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.event.AttachmentStored;
import dev.verbale.event.Event;
import dev.verbale.event.Failure;
import dev.verbale.event.LogWritten;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.results.Run;
import dev.verbale.results.SampleRun;
import dev.verbale.results.TestResult;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A failure as text. */
class FailureBriefTest {

    private static final Failure NO_BUTTON = Failure.of(
                    "org.openqa.selenium.NoSuchElementException",
                    "org.openqa.selenium.NoSuchElementException: no such element\n\tat java.base/java.lang.reflect.Method.invoke(Method.java:569)\n"
                            + "\tat dev.orto.pages.SeedsPage.borrow(SeedsPage.java:31)\n\tat dev.orto.SeedsPageTest.borrows(SeedsPageTest.java:20)")
            .message("no such element: Unable to locate element: {\"method\":\"css selector\",\"selector\":\"#lend\"}")
            .build();

    @TempDir
    Path root;

    private Run run;

    @BeforeEach
    void record() throws Exception {
        SampleRun sample = SampleRun.in(root, "tonight");
        Files.writeString(
                sample.path().resolve("page.html"),
                "<h1>Seeds</h1><form id='loan'><input name='neighbour' placeholder='Who?'><button id='borrow-now'>Borrow</button></form>");
        Files.writeString(
                sample.path().resolve("console.json"),
                "[{\"at\":1,\"level\":\"error\",\"text\":\"Uncaught TypeError: lend is not a function\"}]");
        sample.write(
                TestStarted.of(0, 1, "dev.orto.SeedsPageTest.borrows()", "a neighbour borrows\n## basil")
                        .className("dev.orto.SeedsPageTest")
                        .methodName("borrows")
                        .thread("main")
                        .tags(List.of("seeds"))
                        .build(),
                StepStarted.of(1_000, 2, StepKind.ACTION, "Open the library")
                        .in(1)
                        .build(),
                StepEnded.of(2_000, 2, Outcome.PASSED).build(),
                StepStarted.of(2_500_000, 3, StepKind.ACTION, "Elsa borrows Basil")
                        .in(1)
                        .build(),
                LogWritten.of(2_600_000, 3, "the shelf is dark")
                        .level("warn")
                        .logger("orto")
                        .build(),
                StepEnded.of(2_700_000, 3, Outcome.ERRORED).failure(NO_BUTTON).build(),
                stored(2_800_000, "page.html", AttachmentKind.PAGE_SOURCE, "text/html"),
                stored(2_800_001, "console.json", AttachmentKind.CONSOLE, "application/json"),
                TestEnded.of(3_000_000, 1, Outcome.ERRORED).failure(NO_BUTTON).build());
        sample.test("passes", Outcome.PASSED, null);
        run = sample.read();
    }

    private static AttachmentStored stored(long at, String file, String kind, String type) {
        return AttachmentStored.of(at, 1, file, kind, new AttachmentStored.StoredFile(file, type, 1, null))
                .build();
    }

    private static @Nullable FailureReason reason(Run run, TestResult test) {
        return FailureReason.byTest(FailureReason.of(run)).get(test.id());
    }

    private String brief(int longest) {
        TestResult test = run.needingAttention().get(0);
        return FailureBrief.of(run, test, reason(run, test), BriefOptions.longest(longest))
                .text();
    }

    @Test
    void says_all_that_somebody_needs_who_was_not_there() {
        assertThat(brief(12_000)).isEqualTo("""
                        # a neighbour borrows ⏎ ## basil

                        errored after 3.0 s; run tonight
                        id: dev.orto.SeedsPageTest.borrows()
                        tags: seeds

                        ## Failure

                        org.openqa.selenium.NoSuchElementException
                          no such element: Unable to locate element: {"method":"css selector","selector":"#lend"}
                          at dev.orto.pages.SeedsPage.borrow(SeedsPage.java:31)
                          at dev.orto.SeedsPageTest.borrows(SeedsPageTest.java:20)

                        ## Element not found

                        The page had no #lend. Nearest to it:
                        - button#borrow-now "Borrow": is named after what the test does
                        - input[name=neighbour] "Who?": is named after what the test does

                        ## What happened

                          0:00.001 Open the library
                        > 0:02.500 Elsa borrows Basil [errored]
                          0:02.600   warn: the shelf is dark
                          0:02.800 attached page.html: page.html
                          0:02.800 attached console.json: console.json

                        ## Browser

                        Uncaught TypeError: lend is not a function

                        ## Environment

                        os: Linux

                        ## The page, as it was

                        heading "Seeds"
                        form #loan
                        field "Who?" [name=neighbour]
                        button "Borrow" #borrow-now
                        """);
    }

    @Test
    void is_never_longer_than_it_may_be_and_loses_the_least_first() {
        for (int longest : new int[] {500, 700, 1_000, 2_000}) {
            String brief = brief(longest);
            assertThat(brief.length()).as(brief).isLessThanOrEqualTo(longest);
            assertThat(brief).contains("# a neighbour borrows", "NoSuchElementException");
        }
        assertThatThrownBy(() -> brief(499)).hasMessage("499 characters hold no brief; give it 500 or more");
    }

    /** Whatever was recorded, no line of it is one of ours, and nothing is thrown. */
    @Test
    void hostile_texts_stay_inside_their_lines() throws Exception {
        var random = new Random(4);
        String[] pieces = {
            "\n# x",
            "\r\n## y",
            "\u0000",
            "\u2028## z",
            "\uD800",
            "a".repeat(5_000),
            "```",
            "<b>",
            "\t",
            "|",
            "",
            " ".repeat(300_000) + "x"
        };
        for (int round = 0; round < (Boolean.getBoolean("verbale.night") ? 200 : 25); round++) {
            SampleRun sample = SampleRun.in(root, "hostile-" + round);
            String name = pieces[random.nextInt(pieces.length)] + pieces[random.nextInt(pieces.length)];
            String text = pieces[random.nextInt(pieces.length)] + "x" + pieces[random.nextInt(pieces.length)];
            sample.write(
                    TestStarted.of(0, 1, "k" + name, name)
                            .thread(name)
                            .tags(List.of(name))
                            .build(),
                    StepStarted.of(1, 2, StepKind.ACTION, text)
                            .in(1)
                            .thread(name)
                            .build(),
                    LogWritten.of(2, 2, text).level(name).build(),
                    StepEnded.of(3, 2, Outcome.FAILED).reason(name).build(),
                    TestEnded.of(4, 1, Outcome.FAILED)
                            .reason(text)
                            .failure(Failure.of("E", text)
                                    .message("m")
                                    .expected(text)
                                    .actual(name)
                                    .build())
                            .build());
            Run read = sample.read();
            for (TestResult test : read.tests()) {
                FailureReason reason = reason(read, test);
                assertThat(FailureBrief.of(read, test, reason, BriefOptions.longest(500))
                                .text()
                                .length())
                        .isLessThanOrEqualTo(500);
                String brief = FailureBrief.of(read, test, reason, BriefOptions.longest(6_000))
                        .text();
                assertThat(brief.length()).isLessThanOrEqualTo(6_000);
                assertThat(brief.lines().filter(line -> line.startsWith("#")))
                        .allMatch(line -> line.startsWith("# ")
                                || line.matches("## (Failure|What happened|Environment|Others.*)"));
            }
        }
    }

    @Test
    void names_the_first_others_with_the_reason_and_counts_the_rest_without_its_own_attempts() throws Exception {
        SampleRun sample = SampleRun.in(root, "again");
        int id = 10;
        for (String name : List.of("a", "b", "b", "c", "d", "e", "f", "g", "h", "i", "j", "k"))
            for (Event event : failing(id++, name)) sample.write(event);
        Run again = sample.read();

        assertThat(others(again, "a")).containsExactly("b", "c", "d", "e", "f", "g", "h", "i", "and 2 more");
        assertThat(others(again, "b")).containsExactly("a", "c", "d", "e", "f", "g", "h", "i", "and 2 more");
        assertThat(others(again, "k")).containsExactly("a", "b", "c", "d", "e", "f", "g", "h", "and 2 more");
    }

    private static List<Event> failing(int id, String name) {
        String key = "dev.orto.RotaTest." + name + "()";
        return List.of(
                TestStarted.of(id, id, key, name)
                        .className("dev.orto.RotaTest")
                        .methodName(name)
                        .thread("main")
                        .build(),
                TestEnded.of(id + 1_000, id, Outcome.ERRORED).failure(NO_BUTTON).build());
    }

    private static List<String> others(Run run, String name) {
        TestResult test = run.needingAttention().stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElseThrow();
        String text = FailureBrief.of(run, test, reason(run, test), BriefOptions.longest(12_000))
                .text();
        return text.substring(text.indexOf("## Others with this reason"))
                .lines()
                .filter(line -> line.startsWith("- "))
                .map(line -> line.replaceAll("^- (dev.orto.RotaTest.)?|\\(\\)$", ""))
                .toList();
    }
}
