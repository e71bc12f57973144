package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A page in one file, alone in a folder, in a real browser. */
class SingleFileTest {

    private static final String HOSTILE = "</script><script>window.ran=1</script><!--<script>\"'&\u2028";
    private static final long ROOM = 100_000_000;

    private static Chromium chromium;

    @TempDir
    Path root;

    private Run run;

    @BeforeAll
    static void open_the_browser() {
        chromium = new Chromium(true);
    }

    @AfterAll
    static void close_the_browser() {
        chromium.close();
    }

    @BeforeEach
    void record() throws IOException {
        var recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root.resolve("runs")).withSummaryLine(false));
        recorder.fact("season", "summer");
        Scope passed = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("passes", "passes").className("s.T").build());
        recorder.log("watered at " + HOSTILE);
        recorder.endTest(passed, TestEnd.passed());
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("hostile", HOSTILE).className("s.T").build());
        recorder.log(HOSTILE);
        recorder.attach("shot", png(), MediaType.PNG);
        recorder.attach("source", ("<h1>Rota</h1>" + HOSTILE).getBytes(StandardCharsets.UTF_8), MediaType.HTML);
        recorder.attach("bytes", new byte[] {1, 2, 3}, MediaType.of("application/zip"));
        try (var video = SingleFileTest.class.getResourceAsStream("garden.webm")) {
            recorder.attach(test, "video", AttachmentKind.VIDEO, video, MediaType.of("video/webm"), 1);
        }
        recorder.endTest(test, TestEnd.threw(new AssertionError(HOSTILE)));
        run = RunReader.read(root.resolve("runs"));
    }

    private static byte[] png() throws IOException {
        var bytes = new ByteArrayOutputStream();
        ImageIO.write(
                new java.awt.image.BufferedImage(40, 30, java.awt.image.BufferedImage.TYPE_INT_RGB), "png", bytes);
        return bytes.toByteArray();
    }

    @Test
    void one_file_has_the_summary_the_list_each_test_and_its_attachments() throws Exception {
        Path file = written("alone/tonight.html", PageOptions.PLAIN, ROOM);
        try (Stream<Path> beside = Files.list(file.getParent())) {
            assertThat(beside).containsExactly(file);
        }
        chromium.requests();

        chromium.open(file, "");
        assertThat(chromium.text(".sentence")).startsWith("1 of 2 tests did not pass");
        chromium.open(file, "#/tests");
        chromium.find(".row-line");
        chromium.open(file, "#/test/hostile");
        assertThat(chromium.text(".test h1"))
                .isEqualTo(HOSTILE.replace("\u2028", " ").strip());
        chromium.waitFor("return document.querySelector('.thumbnail img')?.naturalWidth === 40");
        chromium.waitFor("return document.querySelector('.video video').readyState >= 2");
        chromium.script("document.querySelector('video').currentTime = 1");
        chromium.waitFor(
                "return document.querySelector('video').currentTime === 1 && !document.querySelector('video').seeking");
        chromium.find(".thumbnails .thumbnail:nth-child(2)").click();
        assertThat(chromium.text(".viewer .attachment-text")).startsWith("<h1>Rota</h1></script>");
        assertThat(chromium.find(".viewer a[download]").getDomAttribute("download"))
                .isEqualTo("02-source.html");
        assertThat((String) chromium.script(
                        "return (async () => (await (await fetch(''))?.text?.()) )().catch(() => 'refused')"))
                .isEqualTo("refused");

        assertThat(chromium.script("return window.ran")).isNull();
        assertThat(chromium.requests())
                .allMatch(address -> address.startsWith(file.toUri().toASCIIString())
                        || address.startsWith("blob:null/")
                        || address.startsWith("blob:file:")
                        || address.startsWith("data:font")
                        || address.equals("about:blank"));
    }

    @Test
    void only_its_own_script_can_run() throws Exception {
        for (Path page :
                List.of(written("one.html", PageOptions.PLAIN, ROOM), Page.write(run, root.resolve("folder")))) {
            chromium.open(page, "");
            chromium.complaints();

            chromium.script("const inline = document.createElement('div'); inline.innerHTML = "
                    + "'<img src=x onerror=\"window.ran=1\"><a id=\"link\" href=\"javascript:window.ran=1\">x</a>';"
                    + "document.body.append(inline); document.getElementById('link').click();"
                    + "const written = document.createElement('iframe'); written.srcdoc = '<script>parent.ran=1</scr' + 'ipt>';"
                    + "document.body.append(written)");
            chromium.waitFor("return document.querySelector('img[src=x]').complete");

            assertThat(chromium.script("return window.ran")).as(page.toString()).isNull();
            assertThat(chromium.complaints()).anyMatch(one -> one.contains("Content Security Policy"));
        }
    }

    @Test
    void what_there_is_no_room_for_is_named_and_not_in_it() throws Exception {
        Path small = written("small.html", PageOptions.PLAIN, 600);

        chromium.open(small, "#/test/hostile");
        chromium.waitFor("return document.querySelector('.thumbnail img')?.naturalWidth === 40");
        assertThat(chromium.texts(".thumbnail.missing"))
                .anyMatch(one -> one.matches("video .* was too large for this file"));
        assertThat(chromium.driver.findElements(org.openqa.selenium.By.cssSelector("video")))
                .isEmpty();
        assertThat(Files.size(small)).isLessThan(Files.size(written("large.html", PageOptions.PLAIN, ROOM)));
    }

    @Test
    void it_is_the_same_twice_and_replaces_nothing_but_itself() throws Exception {
        Path file = written("page.html", PageOptions.PLAIN, ROOM);
        byte[] first = Files.readAllBytes(file);
        assertThat(written("page.html", PageOptions.PLAIN, ROOM)).hasBinaryContent(first);

        Path foreign = Files.writeString(root.resolve("letter.html"), "<!doctype html><p>Dear neighbours");
        assertThatThrownBy(() -> Page.writeSingleFile(run, foreign, PageOptions.PLAIN, ROOM))
                .isInstanceOf(FileAlreadyExistsException.class)
                .hasMessageContaining("would be lost");
        assertThatThrownBy(() -> Page.writeSingleFile(run, root, PageOptions.PLAIN, ROOM))
                .isInstanceOf(FileAlreadyExistsException.class)
                .hasMessageContaining("is no file");
        assertThat(foreign).hasContent("<!doctype html><p>Dear neighbours");
        try (Stream<Path> left = Files.list(root)) {
            assertThat(left).noneMatch(one -> one.getFileName().toString().startsWith(".verbale-page"));
        }
    }

    @Test
    void without_javascript_it_says_what_the_run_came_to() throws Exception {
        Path file = written("page.html", PageOptions.PLAIN, ROOM);

        chromium.withoutScripts(file);
        try {
            assertThat(chromium.text("h1.sentence")).startsWith("1 of 2 tests did not pass");
        } finally {
            chromium.withScripts();
        }
    }

    @Test
    void a_team_has_its_own_title_colour_and_image_in_it() throws Exception {
        Path logo = Files.write(root.resolve("orto.png"), png());
        PageOptions options =
                PageOptions.PLAIN.withLook(PageLook.of("Orto & friends", "Every <night>", logo.toString(), "#ffaa00"));

        for (Path page :
                List.of(written("page.html", options, ROOM), Page.write(run, root.resolve("folder"), options))) {
            chromium.open(page, "");

            assertThat(chromium.text(".wordmark")).isEqualTo("Orto & friends");
            assertThat(chromium.text(".subtitle")).isEqualTo("Every <night>");
            chromium.waitFor("return document.querySelector('.logo').naturalWidth === 40");
            assertThat(chromium.script("return document.title")).asString().endsWith(" · Orto & friends");
            assertThat(chromium.script("return getComputedStyle(document.querySelector('.counts a')).color"))
                    .as("darker, so that it can be read")
                    .isNotEqualTo("rgb(255, 170, 0)");
        }
    }

    @Test
    void what_is_left_out_is_nowhere_in_the_page() throws Exception {
        PageOptions options = PageOptions.PLAIN.withContent(PageContent.of("passed, environment", "WARN"));

        Path index = Page.write(run, root.resolve("folder"), options);

        try (Stream<Path> files = Files.walk(index.getParent())) {
            for (Path file : files.filter(Files::isRegularFile).toList())
                assertThat(Files.readString(file, StandardCharsets.ISO_8859_1))
                        .as(file.toString())
                        .doesNotContain("summer", "watered at");
        }
        chromium.open(index, "#/test/passes");
        assertThat(chromium.text(".empty")).contains("was left out of this page");
        chromium.open(index, "#/test/hostile");
        assertThat(chromium.texts(".log-line")).as("a line without a level").hasSize(1);
    }

    private Path written(String name, PageOptions options, long room) throws IOException {
        return Page.writeSingleFile(run, root.resolve(name), options, room);
    }
}
