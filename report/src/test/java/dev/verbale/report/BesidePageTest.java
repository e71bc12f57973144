package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.source.CodeAtHand;
import dev.verbale.results.source.SourceFiles;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.AttachmentKind;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.support.ui.Select;

/** A test beside its other attempts and another run, links to its lines, and the code that failed. */
class BesidePageTest {

    private static Chromium chromium;

    @TempDir
    Path root;

    @BeforeAll
    static void open_the_browser() {
        chromium = new Chromium();
    }

    @AfterAll
    static void close_the_browser() {
        chromium.close();
    }

    private AdapterRecorder recorder(String run) {
        return AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withRun(run).withSummaryLine(false));
    }

    private static void attempt(AdapterRecorder recorder, int port, boolean passes) throws IOException {
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("k.lends", "lends")
                        .className("sample.SeedsTest")
                        .methodName("lends")
                        .build());
        recorder.startStep("open http://127.0.0.1:" + port + "/seeds").passed();
        var failure = new AssertionError("nothing left");
        failure.setStackTrace(new StackTraceElement[] {
            new StackTraceElement("org.junit.Assert", "fail", "Assert.java", 9),
            new StackTraceElement("sample.SeedsTest", "lends", "SeedsTest.java", 3)
        });
        if (passes) recorder.startStep("lend a sachet").passed();
        else recorder.startStep("lend a sachet").failed(failure);
        if (passes) recorder.startStep("bring it back").passed();
        var bytes = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(passes ? 30 : 40, 20, BufferedImage.TYPE_INT_RGB), "png", bytes);
        recorder.attach(
                test,
                "shot",
                AttachmentKind.SCREENSHOT,
                new ByteArrayInputStream(bytes.toByteArray()),
                MediaType.PNG,
                0);
        recorder.endTest(test, passes ? TestEnd.passed() : TestEnd.threw(failure));
    }

    private Run read(String run) throws IOException {
        return RunReader.read(root.resolve(run));
    }

    @Test
    void the_first_step_that_went_differently_is_named_and_the_screens_lie_over_each_other() throws Exception {
        AdapterRecorder recorder = recorder("tonight");
        attempt(recorder, 4001, false);
        attempt(recorder, 4002, true);
        Path index = Page.write(read("tonight"), root.resolve("page"));

        chromium.open(index, "#/test/k.lends");
        new Select(chromium.find(".beside select")).selectByVisibleText("attempt 2, passed");

        assertThat(chromium.text(".first-difference"))
                .startsWith(
                        "The first step that went differently: “lend a sachet” failed in attempt 1, passed in attempt 2;");
        assertThat(chromium.texts(".steps tbody tr"))
                .satisfiesExactly(
                        open -> assertThat(open)
                                .as("whatever its port")
                                .contains("open http", "passed")
                                .doesNotContain("not there"),
                        lend -> assertThat(lend).contains("lend a sachet", "failed", "passed"),
                        bring -> assertThat(bring).contains("bring it back not there", "passed"));
        assertThat(chromium.texts(".steps tr[aria-current=step] th")).containsExactly("lend a sachet");
        chromium.waitFor(
                "return [...document.querySelectorAll('.screens img')].map(i => i.naturalWidth).join() === '40,30'");
        chromium.script("const range = document.querySelector('.screens input'); range.value = 10;"
                + " range.dispatchEvent(new Event('input', { bubbles: true }))");
        chromium.waitFor("return document.querySelector('.screens i').style.left === '10%'");
        chromium.driver.findElement(By.xpath("//button[.='only what differs']")).click();
        assertThat(chromium.find(".screens img + img").getCssValue("mix-blend-mode"))
                .isEqualTo("difference");
        String address = (String) chromium.script("return location.hash");
        assertThat(address).isEqualTo("#/test/k.lends?beside=k.lends~2");
        chromium.open(index, address);
        assertThat(chromium.text(".first-difference")).contains("lend a sachet");
    }

    @Test
    void the_same_test_of_another_run_is_beside_it_and_one_that_was_not_there_is_not() throws Exception {
        attempt(recorder("good"), 4001, true);
        AdapterRecorder tonight = recorder("tonight");
        attempt(tonight, 4002, false);
        tonight.endTest(
                tonight.startTest(
                        tonight.run(),
                        TestDescriptor.of("k.new", "new")
                                .className("sample.SeedsTest")
                                .methodName("new")
                                .build()),
                TestEnd.passed());
        Path index = Page.write(read("tonight"), root.resolve("page"), PageOptions.PLAIN.withBaseline(read("good")));

        chromium.open(index, "#/test/k.lends?beside=baseline");
        assertThat(chromium.text(".first-difference"))
                .contains("“lend a sachet” failed in this run, passed in good;", "good passed after");
        chromium.waitFor("return document.querySelectorAll('.screens img')[1]?.naturalWidth === 30");
        Path without = Page.write(
                read("tonight"),
                root.resolve("short"),
                PageOptions.PLAIN.withBaseline(read("good")).withContent(PageContent.of("passed", "")));
        chromium.open(without, "#/test/k.lends");
        chromium.find(".failure");
        assertThat(chromium.driver.findElements(By.cssSelector(".beside")))
                .as("what was left out is no difference")
                .isEmpty();
        chromium.open(index, "#/test/k.new");
        chromium.find(".test h1");
        assertThat(chromium.driver.findElements(By.cssSelector(".beside"))).isEmpty();
    }

    @Test
    void a_test_is_printed_without_what_only_a_screen_has() throws Exception {
        attempt(recorder("tonight"), 4001, false);
        chromium.open(Page.write(read("tonight"), root.resolve("page")), "#/test/k.lends");
        chromium.find(".failure");

        chromium.driver.executeCdpCommand("Emulation.setEmulatedMedia", Map.of("media", "print"));
        try {
            for (String screenOnly : List.of(".masthead nav", ".navigation", ".to-line"))
                assertThat(chromium.find(screenOnly).isDisplayed())
                        .as(screenOnly)
                        .isFalse();
            for (String printed : List.of("h1", ".failure .message", ".entries .step-name", ".thumbnail img"))
                assertThat(chromium.find(printed).isDisplayed()).as(printed).isTrue();
        } finally {
            chromium.driver.executeCdpCommand("Emulation.setEmulatedMedia", Map.of("media", ""));
        }
    }

    @Test
    void each_line_has_an_address_that_leads_to_it() throws Exception {
        attempt(recorder("tonight"), 4001, true);
        Path index = Page.write(read("tonight"), root.resolve("page"));
        chromium.open(index, "#/test/k.lends");

        String address = chromium.find(".entry:nth-child(2) .to-line").getDomAttribute("href");
        chromium.open(index, address);

        assertThat(chromium.text(".entry[aria-current=location] .step-name")).isEqualTo("lend a sachet");
    }

    @Test
    void the_line_that_failed_is_shown_where_its_file_is_at_hand_and_the_brief_has_its_commits() throws Exception {
        Path sources = Files.createDirectories(root.resolve("project/src/test/java/sample"));
        Files.writeString(
                sources.resolve("SeedsTest.java"), "class SeedsTest {\n  void lends() {\n    <b>take</b>();\n  }\n}\n");
        attempt(recorder("tonight"), 4001, false);
        var code = new CodeAtHand(
                SourceFiles.below(List.of(root.resolve("project"))), file -> List.of("3f09a1c Ada: Lend two"));
        Path index = Page.write(read("tonight"), root.resolve("page"), PageOptions.PLAIN.withCode(code));

        chromium.open(index, "#/test/k.lends");

        assertThat(chromium.text(".snippet h2")).isEqualTo("SeedsTest.java, line 3");
        assertThat(chromium.text(".snippet mark")).endsWith("3      <b>take</b>();");
        assertThat(Files.readString(index.resolveSibling("data/briefs/0.js")))
                .contains("## Source, SeedsTest.java", "> 3      <b>take</b>();", "3f09a1c Ada: Lend two")
                .doesNotContain(root.toString());
    }
}
