package dev.verbale.video;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Evidence;
import dev.verbale.EvidenceSource;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.AttachmentKind;
import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Videos of tests, with the real encoder. */
class ScreenRecorderTest {

    @TempDir
    Path root;

    private AdapterRecorder recorder(Map<String, String> settings) {
        return AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withSummaryLine(false).withSettings(settings));
    }

    @ParameterizedTest
    @CsvSource({"failures, fails, true", "failures, passes, false", "all, passes, true", "none, fails, false"})
    void a_video_is_kept_as_the_setting_says(String policy, String how, boolean kept) throws Exception {
        AdapterRecorder recorder = recorder(Map.of("verbale.video", policy));
        video(recorder, how.equals("fails"), 0);

        Run run = encoded(kept ? 1 : 0);

        List<Entry.AttachmentEntry> videos = attachments(run, AttachmentKind.VIDEO);
        assertThat(videos).hasSize(kept ? 1 : 0);
        assertThat(run.problems()).isEmpty();
        for (Entry.AttachmentEntry video : videos) {
            assertThat(video.stored().mediaType()).isEqualTo("video/webm");
            assertThat(Files.readAllBytes(video.file())).startsWith(0x1a, 0x45, 0xdf, 0xa3);
            assertThat(Duration.between(run.tests().get(0).started(), video.begins()))
                    .isBetween(Duration.ZERO, Duration.ofSeconds(30));
        }
        assertThat(spools()).isEmpty();
    }

    @Test
    void a_failure_after_the_browser_closed_still_finds_its_video() throws Exception {
        AdapterRecorder recorder = recorder(Map.of());
        video(recorder, true, 1);

        assertThat(attachments(encoded(1), AttachmentKind.VIDEO)).hasSize(1);
    }

    @Test
    void tests_that_share_what_is_on_video_have_videos_of_their_own() throws Exception {
        AdapterRecorder recorder = recorder(Map.of("verbale.video", "all"));
        var screenRecorder = new ScreenRecorder(recorder);
        for (String name : List.of("first", "second")) {
            Scope test = recorder.startTest(
                    recorder.run(), TestDescriptor.of(name, name).build());
            screenRecorder.use(recorder.currentTest());
            screenRecorder.frame(image(name.length(), "jpg"));
            recorder.endTest(test, TestEnd.passed());
            screenRecorder.ended(test);
        }

        Run run = encoded(2);

        assertThat(run.tests()).allSatisfy(test -> assertThat(test.entries()).hasSize(1));
    }

    @Test
    void a_test_that_uses_two_browsers_has_two_videos() throws Exception {
        AdapterRecorder recorder = recorder(Map.of("verbale.video", "all"));
        List<ScreenRecorder> screenRecorders = List.of(new ScreenRecorder(recorder), new ScreenRecorder(recorder));
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("both", "both").build());
        for (ScreenRecorder screenRecorder : screenRecorders) {
            screenRecorder.use(recorder.currentTest());
            screenRecorder.frame(image(5, "jpg"));
        }
        recorder.endTest(test, TestEnd.passed());
        for (ScreenRecorder screenRecorder : screenRecorders) screenRecorder.ended(test);

        Run run = encoded(2);

        assertThat(attachments(run, AttachmentKind.VIDEO)).hasSize(2);
        assertThat(run.problems()).isEmpty();
    }

    @Test
    void without_an_encoder_frames_are_kept_and_the_run_says_so() throws Exception {
        AdapterRecorder recorder = recorder(Map.of());
        var screenRecorder = new ScreenRecorder(recorder);
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("seeds", "seeds").build());
        var spool = new FrameSpool(test, recorder.folder().resolve("spools/1.mkv"));
        for (int i = 0; i < 100; i++) spool.add(image(i, "jpg"), 1_000 + i * 100_000L);
        spool.keep(null);
        recorder.endTest(test, TestEnd.passed());

        EncoderQueue.encode(recorder, spool, java.util.Optional.empty());

        Run run = RunReader.read(root);
        List<Entry.AttachmentEntry> frames = attachments(run, AttachmentKind.FRAMES);
        assertThat(screenRecorder.isRecording()).isTrue();
        assertThat(frames).hasSizeBetween(40, 41);
        assertThat(frames.get(0).name()).isEqualTo("frame at 0.0 s");
        assertThat(frames.get(frames.size() - 1).name()).isEqualTo("frame at 9.9 s");
        assertThat(frames)
                .allSatisfy(one ->
                        assertThat(ImageIO.read(one.file().toFile()).getWidth()).isEqualTo(320));
        assertThat(run.facts().get("video")).contains("There is no encoder", "org.bytedeco:ffmpeg");
    }

    /** What the JVM that is killed runs. */
    static final class Victim {
        public static void main(String[] arguments) throws Exception {
            AdapterRecorder recorder = AdapterRecorder.current();
            recorder.startTest(
                    recorder.run(), TestDescriptor.of("seeds", "seeds").build());
            var screenRecorder = new ScreenRecorder(recorder);
            screenRecorder.use(recorder.currentTest());
            for (int i = 0; i < 20; i++) screenRecorder.frame(image(i * 10, "jpg"));
            Runtime.getRuntime().halt(9); // as a kill does: nothing is closed, no hook runs
        }
    }

    @Test
    void a_killed_jvm_leaves_a_video_that_can_be_played() throws Exception {
        Process jvm = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Djava.awt.headless=true",
                        "-Dverbale.root=" + root,
                        "-cp",
                        System.getProperty("java.class.path"),
                        Victim.class.getName())
                .inheritIO()
                .start();
        assertThat(jvm.waitFor()).isEqualTo(9);

        List<Entry.AttachmentEntry> videos = attachments(RunReader.read(root), AttachmentKind.VIDEO);

        assertThat(videos).singleElement().satisfies(video -> {
            assertThat(video.name()).isEqualTo("video, as far as it came");
            Path made = root.resolve("made.webm");
            Process encoder = Encoder.find("").orElseThrow().start(video.file(), made, root.resolve("log"));
            assertThat(encoder.waitFor()).as("it can be read by others").isZero();
            assertThat(made).isNotEmptyFile();
        });
    }

    @Test
    void what_is_no_image_costs_a_gap_and_a_line() throws Exception {
        AdapterRecorder recorder = recorder(Map.of());
        var screenRecorder = new ScreenRecorder(recorder);
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("seeds", "seeds").build());
        screenRecorder.use(test);
        screenRecorder.frame(new byte[] {1, 2, 3});
        screenRecorder.frame(new byte[] {1, 2, 3});
        recorder.endTest(test, TestEnd.passed());

        assertThat(RunReader.read(root).tests().get(0).entries())
                .singleElement()
                .satisfies(entry -> assertThat(((Entry.LogEntry) entry).text())
                        .contains("A frame of the video could not be read, and has gaps", "3 bytes"));
    }

    /** A test whose screen is recorded for a second; recording stops before the failure where that comes late. */
    private void video(AdapterRecorder recorder, boolean fails, int late) throws Exception {
        var screenRecorder = new ScreenRecorder(recorder);
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("seeds", "seeds").build());
        recorder.register(new EvidenceSource() {
            @Override
            public String name() {
                return "screen";
            }

            @Override
            public void capture(Evidence evidence) {
                screenRecorder.failed(evidence);
            }

            @Override
            public void ended(Scope scope) {
                screenRecorder.ended(scope);
            }
        });
        screenRecorder.use(recorder.currentTest());
        for (int i = 0; i < 6; i++) screenRecorder.frame(image(i * 40, i % 2 == 0 ? "jpg" : "png"));
        if (late == 1) screenRecorder.stop();
        recorder.endTest(test, fails ? TestEnd.threw(new AssertionError("no basil")) : TestEnd.passed());
    }

    /** Videos come when they are ready: looks until all are there. */
    private Run encoded(int videos) throws Exception {
        long until = System.nanoTime() + Duration.ofSeconds(30).toNanos();
        while (true) {
            Run run = RunReader.read(root);
            boolean all = attachments(run, AttachmentKind.VIDEO).size() >= videos;
            if ((all && spools().isEmpty()) || System.nanoTime() > until) return run;
            Thread.onSpinWait();
        }
    }

    private List<Path> spools() throws IOException {
        Path folder = RunReader.find(root).path().resolve("spools");
        if (!Files.isDirectory(folder)) return List.of();
        try (Stream<Path> files = Files.list(folder)) {
            return files.toList();
        }
    }

    private static List<Entry.AttachmentEntry> attachments(Run run, String kind) {
        return run.tests().stream()
                .flatMap(test -> test.entries().stream())
                .filter(entry -> entry instanceof Entry.AttachmentEntry attachment
                        && attachment.kind().equals(kind))
                .map(Entry.AttachmentEntry.class::cast)
                .toList();
    }

    private static byte[] image(int x, String format) throws IOException {
        var image = new BufferedImage(320, 200, BufferedImage.TYPE_INT_RGB);
        var graphics = image.createGraphics();
        graphics.setColor(Color.ORANGE);
        graphics.fillRect(x, 50, 60, 60);
        var out = new ByteArrayOutputStream();
        ImageIO.write(image, format, out);
        return out.toByteArray();
    }
}
