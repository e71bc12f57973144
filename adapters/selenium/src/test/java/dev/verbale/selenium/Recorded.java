package dev.verbale.selenium;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Scope;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.TestInfo;
import org.openqa.selenium.chrome.ChromeDriver;

/** Tests of a browser, each of which records a test of its own name. */
abstract class Recorded {

    static Garden garden;
    static ChromeDriver chromium;

    final AdapterRecorder recorder = AdapterRecorder.current();
    String key;
    Scope test;

    @BeforeAll
    static void open_the_browser() throws IOException {
        garden = new Garden();
        chromium = Garden.browser();
    }

    @AfterAll
    static void close_the_browser() {
        chromium.quit();
        garden.close();
    }

    @BeforeEach
    void begin(TestInfo info) {
        key = getClass().getSimpleName() + "."
                + info.getTestMethod().orElseThrow().getName();
        test = begin(key);
    }

    Scope begin(String name) {
        return recorder.startTest(
                recorder.run(),
                TestDescriptor.of(name, name)
                        .className("sample.Browser")
                        .methodName(name)
                        .build());
    }

    List<Entry> end(TestEnd testEnd) throws IOException {
        recorder.endTest(test, testEnd);
        return result(key).entries();
    }

    static TestResult result(String key) throws IOException {
        return RunReader.read(Path.of(System.getProperty("verbale.root"))).tests().stream()
                .filter(result -> result.key().equals(key))
                .findFirst()
                .orElseThrow();
    }

    static String content(List<Entry> entries, String attachment) throws IOException {
        Path file = attachments(entries).stream()
                .filter(one -> one.name().equals(attachment))
                .findFirst()
                .orElseThrow(() -> new AssertionError(attachment + " is not among " + attachments(entries)))
                .file();
        assertThat(file).isNotNull();
        return Files.readString(file, java.nio.charset.StandardCharsets.ISO_8859_1);
    }

    /** Of attachments, and of those that are still to come, as a video is while it is encoded. */
    static List<String> names(List<Entry> entries) {
        List<String> names = new ArrayList<>();
        for (Entry entry : entries) {
            if (entry instanceof Entry.AttachmentEntry attachment) names.add(attachment.name());
            if (entry instanceof Entry.PendingEntry pending) names.add(pending.name());
            if (entry instanceof Entry.StepEntry step) names.addAll(names(step.entries()));
        }
        return names;
    }

    static List<String> texts(List<Entry> entries) {
        List<String> texts = new ArrayList<>();
        for (Entry entry : entries) {
            if (entry instanceof Entry.LogEntry log) texts.add(log.text());
            if (entry instanceof Entry.StepEntry step) texts.addAll(texts(step.entries()));
        }
        return texts;
    }

    static List<Entry.AttachmentEntry> attachments(List<Entry> entries) {
        List<Entry.AttachmentEntry> attachments = new ArrayList<>();
        for (Entry entry : entries) {
            if (entry instanceof Entry.AttachmentEntry attachment) attachments.add(attachment);
            if (entry instanceof Entry.StepEntry step) attachments.addAll(attachments(step.entries()));
        }
        return attachments;
    }

    static List<String> steps(List<Entry> entries) {
        List<String> steps = new ArrayList<>();
        for (Entry entry : entries) {
            if (!(entry instanceof Entry.StepEntry step)) continue;
            steps.add(step.name()
                    + (step.outcome().word().equals("passed")
                            ? ""
                            : ": " + step.outcome().word()));
            steps.addAll(steps(step.entries()));
        }
        return steps;
    }
}
