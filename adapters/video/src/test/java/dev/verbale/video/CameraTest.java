package dev.verbale.video;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.PaperKept;
import dev.verbale.evidence.Evidence;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.recorder.Ending;
import dev.verbale.recorder.Identity;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.RecorderOptions;
import dev.verbale.recorder.Scope;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
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

/** Films of tests, with the real encoder. */
class CameraTest {

    @TempDir
    Path root;

    private Recorder recorder(Map<String, String> settings) {
        return Recorder.open(
                RecorderOptions.defaults().withRoot(root).withClosingLine(false).withAdapters(settings));
    }

    @ParameterizedTest
    @CsvSource({"failures, fails, true", "failures, passes, false", "all, passes, true", "none, fails, false"})
    void a_film_is_kept_as_the_setting_says(String policy, String how, boolean kept) throws Exception {
        Recorder recorder = recorder(Map.of("verbale.video", policy));
        film(recorder, how.equals("fails"), 0);

        Run run = developed(kept ? 1 : 0);

        List<Entry.PaperEntry> videos = papers(run, PaperKept.VIDEO);
        assertThat(videos).hasSize(kept ? 1 : 0);
        assertThat(run.problems()).isEmpty();
        for (Entry.PaperEntry video : videos) {
            assertThat(video.mediaType()).isEqualTo("video/webm");
            assertThat(Files.readAllBytes(video.file())).startsWith(0x1a, 0x45, 0xdf, 0xa3);
            assertThat(Duration.between(run.tests().get(0).started(), video.begins()))
                    .isBetween(Duration.ZERO, Duration.ofSeconds(5));
        }
        assertThat(films()).isEmpty();
    }

    @Test
    void a_failure_after_the_browser_closed_still_finds_its_film() throws Exception {
        Recorder recorder = recorder(Map.of());
        film(recorder, true, 1);

        assertThat(papers(developed(1), PaperKept.VIDEO)).hasSize(1);
    }

    @Test
    void tests_that_share_what_is_filmed_have_films_of_their_own() throws Exception {
        Recorder recorder = recorder(Map.of("verbale.video", "all"));
        var camera = new Camera(recorder);
        for (String name : List.of("first", "second")) {
            Scope test = recorder.startTest(recorder.run(), new Identity(name, name, null, null, List.of()));
            camera.use(recorder.owner());
            camera.picture(picture(name.length(), "jpg"));
            recorder.endTest(test, Ending.passed());
            camera.ended(test);
        }

        Run run = developed(2);

        assertThat(run.tests()).allSatisfy(test -> assertThat(test.entries()).hasSize(1));
    }

    @Test
    void a_test_that_uses_two_browsers_has_two_films() throws Exception {
        Recorder recorder = recorder(Map.of("verbale.video", "all"));
        List<Camera> cameras = List.of(new Camera(recorder), new Camera(recorder));
        Scope test = recorder.startTest(recorder.run(), new Identity("both", "both", null, null, List.of()));
        for (Camera camera : cameras) {
            camera.use(recorder.owner());
            camera.picture(picture(5, "jpg"));
        }
        recorder.endTest(test, Ending.passed());
        for (Camera camera : cameras) camera.ended(test);

        Run run = developed(2);

        assertThat(papers(run, PaperKept.VIDEO)).hasSize(2).allMatch(Entry.PaperEntry::came);
        assertThat(run.problems()).isEmpty();
    }

    @Test
    void without_an_encoder_pictures_are_kept_and_the_run_says_so() throws Exception {
        Recorder recorder = recorder(Map.of());
        var camera = new Camera(recorder);
        Scope test = recorder.startTest(recorder.run(), new Identity("seeds", "seeds", null, null, List.of()));
        var film = new Film(test, recorder.folder().resolve("films/1.mkv"));
        for (int i = 0; i < 100; i++) film.add(picture(i, "jpg"), 1_000 + i * 100_000L);
        film.keep(null);
        recorder.endTest(test, Ending.passed());

        Darkroom.develop(recorder, film, java.util.Optional.empty());

        Run run = RunReader.read(root);
        List<Entry.PaperEntry> strip = papers(run, PaperKept.FILMSTRIP);
        assertThat(camera.films()).isTrue();
        assertThat(strip).hasSizeBetween(40, 41);
        assertThat(strip.get(0).name()).isEqualTo("film at 0.0 s");
        assertThat(strip.get(strip.size() - 1).name()).isEqualTo("film at 9.9 s");
        assertThat(strip)
                .allSatisfy(one ->
                        assertThat(ImageIO.read(one.file().toFile()).getWidth()).isEqualTo(320));
        assertThat(run.facts().get("video")).contains("There is no encoder", "org.bytedeco:ffmpeg");
    }

    /** What the JVM that is killed runs. */
    static final class Victim {
        public static void main(String[] arguments) throws Exception {
            Recorder recorder = Recorder.current();
            recorder.startTest(recorder.run(), new Identity("seeds", "seeds", null, null, List.of()));
            var camera = new Camera(recorder);
            camera.use(recorder.owner());
            for (int i = 0; i < 20; i++) camera.picture(picture(i * 10, "jpg"));
            Runtime.getRuntime().halt(9); // as a kill does: nothing is closed, no hook runs
        }
    }

    @Test
    void a_killed_jvm_leaves_a_film_that_can_be_played() throws Exception {
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

        List<Entry.PaperEntry> films = papers(RunReader.read(root), PaperKept.VIDEO);

        assertThat(films).singleElement().satisfies(film -> {
            assertThat(film.name()).isEqualTo("film, as far as it came");
            Path video = root.resolve("made.webm");
            Process encoder = Encoder.find("").orElseThrow().start(film.file(), video, root.resolve("log"));
            assertThat(encoder.waitFor()).as("it can be read by others").isZero();
            assertThat(video).isNotEmptyFile();
        });
    }

    @Test
    void what_is_no_picture_costs_a_gap_and_a_note() throws Exception {
        Recorder recorder = recorder(Map.of());
        var camera = new Camera(recorder);
        Scope test = recorder.startTest(recorder.run(), new Identity("seeds", "seeds", null, null, List.of()));
        camera.use(test);
        camera.picture(new byte[] {1, 2, 3});
        camera.picture(new byte[] {1, 2, 3});
        recorder.endTest(test, Ending.passed());

        assertThat(RunReader.read(root).tests().get(0).entries())
                .singleElement()
                .satisfies(entry -> assertThat(((Entry.NoteEntry) entry).text())
                        .contains("A picture of the film could not be read, and has gaps", "3 bytes"));
    }

    /** A test whose camera sees a second of a moving picture; the camera stops before the failure where that comes late. */
    private void film(Recorder recorder, boolean fails, int late) throws Exception {
        var camera = new Camera(recorder);
        Scope test = recorder.startTest(recorder.run(), new Identity("seeds", "seeds", null, null, List.of()));
        recorder.announce(new EvidenceSource() {
            @Override
            public String name() {
                return "camera";
            }

            @Override
            public void take(Evidence evidence) {
                camera.failed(evidence);
            }

            @Override
            public void ended(Scope scope) {
                camera.ended(scope);
            }
        });
        camera.use(recorder.owner());
        for (int i = 0; i < 6; i++) camera.picture(picture(i * 40, i % 2 == 0 ? "jpg" : "png"));
        if (late == 1) camera.stop();
        recorder.endTest(test, fails ? Ending.threw(new AssertionError("no basil")) : Ending.passed());
    }

    /** Videos come when they are ready: looks until all are there. */
    private Run developed(int videos) throws Exception {
        long until = System.nanoTime() + Duration.ofSeconds(30).toNanos();
        while (true) {
            Run run = RunReader.read(root);
            boolean all = papers(run, PaperKept.VIDEO).stream()
                            .filter(Entry.PaperEntry::came)
                            .count()
                    >= videos;
            if ((all && films().isEmpty()) || System.nanoTime() > until) return run;
            Thread.onSpinWait();
        }
    }

    private List<Path> films() throws IOException {
        Path folder = RunReader.find(root).path().resolve("films");
        if (!Files.isDirectory(folder)) return List.of();
        try (Stream<Path> files = Files.list(folder)) {
            return files.toList();
        }
    }

    private static List<Entry.PaperEntry> papers(Run run, String kind) {
        return run.tests().stream()
                .flatMap(test -> test.entries().stream())
                .filter(entry ->
                        entry instanceof Entry.PaperEntry paper && paper.kind().equals(kind))
                .map(Entry.PaperEntry.class::cast)
                .toList();
    }

    private static byte[] picture(int x, String format) throws IOException {
        var image = new BufferedImage(320, 200, BufferedImage.TYPE_INT_RGB);
        var graphics = image.createGraphics();
        graphics.setColor(Color.ORANGE);
        graphics.fillRect(x, 50, 60, 60);
        var out = new ByteArrayOutputStream();
        ImageIO.write(image, format, out);
        return out.toByteArray();
    }
}
