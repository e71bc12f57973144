package dev.verbale.secrets;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.LogLine;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.About;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Promise 3 at every door: whatever way a secret comes in, no byte of it is in the run's folder. */
class DoorsTest {

    /** Shorter ones stand in ordinary words too. */
    private static final int SHORTEST = 6;

    private static final String REGISTERED = "ann0unced \"Ää/& <secret>\nof two lines-";

    @TempDir
    Path root;

    @Test
    void no_secret_of_any_kind_comes_in_by_any_door() throws Exception {
        AdapterRecorder recorder = recorder();
        List<Corpus.Sample> samples = Corpus.secrets()
                .filter(sample -> !sample.text().contains("GATE"))
                .toList();
        for (Corpus.Sample sample : samples) throughEveryDoor(recorder, sample.text(), sample.text());

        Set<String> leaks = new TreeSet<>();
        for (Path file : files()) {
            String content = Files.readString(file, StandardCharsets.ISO_8859_1) + file;
            for (Corpus.Sample sample : samples)
                for (String secret : sample.secrets()) {
                    int at = secret.length() < SHORTEST ? -1 : content.indexOf(secret.replace("\n", "\\n"));
                    if (at >= 0 && !isInNumber(content, at, secret))
                        leaks.add(content.substring(Math.max(0, at - 60), Math.min(content.length(), at + 60)));
                }
        }
        assertThat(leaks).isEmpty();
    }

    /** A moment, or an id, may have the same digits. */
    private static boolean isInNumber(String content, int at, String secret) {
        int end = at + secret.length();
        return secret.chars().allMatch(Character::isDigit)
                && (at > 0 && Character.isDigit(content.charAt(at - 1))
                        || end < content.length() && Character.isDigit(content.charAt(end)));
    }

    @Test
    void what_was_registered_comes_in_by_no_door() throws Exception {
        AdapterRecorder recorder = recorder();
        recorder.secret(REGISTERED);
        String text = "before " + REGISTERED + " after";
        throughEveryDoor(recorder, text, URLEncoder.encode(text, StandardCharsets.UTF_8));

        int through = 0;
        for (Path file : files()) {
            String content = Files.readString(file, StandardCharsets.ISO_8859_1) + file;
            assertThat(content)
                    .as(file.toString())
                    .doesNotContain("ann0unced", "secret&gt;", "<secret>", "of two lines-");
            through += content.split("before \\[masked] after", -1).length - 1;
        }
        assertThat(through).as("the texts are there, without it").isGreaterThan(30);
    }

    private AdapterRecorder recorder() {
        return AdapterRecorder.open(RecorderOptions.defaults()
                .withRoot(root)
                .withSummaryLine(false)
                .withSecrets(List.of("gardengate"), List.of()));
    }

    private static void throughEveryDoor(AdapterRecorder recorder, String text, String inUrl) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        Scope container = recorder.startContainer(
                recorder.run(),
                TestDescriptor.of(text, text)
                        .className(text)
                        .tags(List.of(text))
                        .build());
        Scope test = recorder.startTest(
                container,
                TestDescriptor.of(text, text)
                        .className(text)
                        .methodName(text)
                        .tags(List.of(text))
                        .build());
        recorder.log(text);
        recorder.log("{}", new Object[] {text});
        recorder.data("a value", text);
        recorder.fact("a fact", text);
        recorder.about(
                About.of().text(text).severity(text).owner(text).link(text).build());
        recorder.startStep(text).passed();
        recorder.startStep("skipped").skipped(text);
        recorder.log(LogLine.of(text)
                .level("info")
                .logger("a logger")
                .thread("main")
                .context(Map.of("context", text))
                .thrown(new Exception(text))
                .build());
        for (String name : List.of("a.txt", ".env", "a.yml", "a.properties", "a.pem", "a.sql", "a.bin", "none"))
            recorder.attach(name, bytes, MediaType.UNKNOWN);
        recorder.attach(text, bytes, MediaType.HTML);
        recorder.attach("typed wrongly", bytes, MediaType.PNG);
        recorder.attach("a stream", new ByteArrayInputStream(bytes), MediaType.UNKNOWN);
        recorder.attach("wide", text.getBytes(StandardCharsets.UTF_16), MediaType.TEXT);
        recorder.exchange("POST", "http://orto.example/?q=" + inUrl)
                .client("a client")
                .requestHeader("X-Note", text)
                .requestBody(bytes, "text/plain")
                .status(200)
                .responseHeader("X-Note", text)
                .responseBody(bytes, "application/octet-stream")
                .attribute("an attribute", text)
                .ended();
        recorder.exchange("POST", "http://orto.example")
                .requestPart("a part", "a.cfg", bytes, "")
                .failed(new IOException(text));
        recorder.checked("a check", new AssertionError(text));
        recorder.endTest(test, TestEnd.threw(new IllegalStateException(text, new Exception(text))));
        recorder.endContainer(container, TestEnd.skipped(text), 0);
    }

    private List<Path> files() throws IOException {
        try (Stream<Path> all = Files.walk(root)) {
            return all.filter(Files::isRegularFile).toList();
        }
    }
}
