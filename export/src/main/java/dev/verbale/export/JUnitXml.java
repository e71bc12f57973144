package dev.verbale.export;

import dev.verbale.event.Failure;
import dev.verbale.folder.RunFolder;
import dev.verbale.imports.OwnProperties;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Entry;
import dev.verbale.results.ModuleKey;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.io.OutputStream;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import org.jspecify.annotations.Nullable;

/**
 * A run as the XML that test runners write since JUnit 3 and CI systems read: a suite a class, a case a test. Earlier attempts are inside
 * their case, as Surefire writes them; attachments are named in the output, as several CI systems pick them up
 * ({@code [[ATTACHMENT|path]]}).
 *
 * @since 0.2.0
 */
public final class JUnitXml {

    private static final int LONGEST_OUTPUT = 100_000;

    /** The outcomes that XML has words for. */
    private static final List<Outcome> PLAIN =
            List.of(Outcome.PASSED, Outcome.SKIPPED, Outcome.FAILED, Outcome.ERRORED);

    private final XMLStreamWriter xml;
    private final Run run;
    private final Labels labels;

    private JUnitXml(XMLStreamWriter xml, Run run, Labels labels) {
        this.labels = labels;
        this.xml = xml;
        this.run = run;
    }

    /**
     * Writes {@code run} to {@code out}, which stays open.
     *
     * @throws IOException where it cannot be written
     */
    public static void write(Run run, OutputStream out) throws IOException {
        write(run, Labels.NONE, out);
    }

    /**
     * The same, with what a team says of failures as a property of that name.
     *
     * @throws IOException where it cannot be written
     */
    public static void write(Run run, Labels labels, OutputStream out) throws IOException {
        try {
            XMLStreamWriter xml = XMLOutputFactory.newFactory().createXMLStreamWriter(out, "UTF-8");
            new JUnitXml(xml, run, labels).write();
            xml.flush();
        } catch (XMLStreamException failed) {
            throw new IOException("the XML was not written: " + failed.getMessage(), failed);
        }
    }

    private void write() throws XMLStreamException {
        Map<String, List<TestResult>> attempts = new LinkedHashMap<>();
        for (TestResult test : run.tests())
            attempts.computeIfAbsent(test.key(), key -> new ArrayList<>()).add(test);
        Map<String, List<List<TestResult>>> suites = new TreeMap<>();
        for (List<TestResult> test : attempts.values())
            suites.computeIfAbsent(suite(test.get(0)), name -> new ArrayList<>())
                    .add(test);
        Map<String, List<ContainerResult>> broken = new TreeMap<>();
        for (ContainerResult container : run.brokenContainers()) {
            String name = container.className() == null ? container.name() : container.className();
            broken.computeIfAbsent(name, added -> new ArrayList<>()).add(container);
            suites.putIfAbsent(name, new ArrayList<>());
        }
        xml.writeStartDocument("UTF-8", "1.0");
        start("testsuites");
        attribute("name", run.name());
        int tests = attempts.size() + run.counts().broken();
        int failures = run.counts().of(Outcome.FAILED);
        counts(tests, failures, errors(run), skipped(run), run.duration());
        for (var suite : suites.entrySet())
            suite(suite.getKey(), suite.getValue(), broken.getOrDefault(suite.getKey(), List.of()));
        end();
        xml.writeEndDocument();
    }

    private static int errors(Run run) {
        return run.counts().needingAttention() - run.counts().of(Outcome.FAILED);
    }

    private static int skipped(Run run) {
        return run.counts().of(Outcome.SKIPPED) + run.counts().of(Outcome.ABORTED);
    }

    private static String suite(TestResult test) {
        if (test.className() != null) return test.className();
        return test.path().isEmpty() ? "tests" : test.path().get(0);
    }

    private void suite(String name, List<List<TestResult>> tests, List<ContainerResult> broken)
            throws XMLStreamException {
        int failures = 0;
        int errors = broken.size();
        int skipped = 0;
        Duration time = Duration.ZERO;
        for (List<TestResult> attempts : tests) {
            TestResult last = attempts.get(attempts.size() - 1);
            if (last.outcome().equals(Outcome.FAILED)) failures++;
            else if (last.outcome().needsAttention()) errors++;
            else if (isSkipped(last)) skipped++;
            time = time.plus(last.duration());
        }
        start("testsuite");
        attribute("name", name);
        counts(tests.size() + broken.size(), failures, errors, skipped, time);
        if (!tests.isEmpty())
            attribute(
                    "timestamp",
                    tests.get(0)
                            .get(0)
                            .started()
                            .toString()
                            .replaceAll("\\.\\d+", "")
                            .replace("Z", ""));
        for (List<TestResult> attempts : tests) test(name, attempts);
        for (ContainerResult container : broken) {
            start("testcase");
            attribute("name", container.name() + " (set-up or tear-down)");
            attribute("classname", name);
            attribute("time", seconds(container.duration()));
            start("properties");
            key(container.key());
            property(OwnProperties.CONTAINER, "true");
            end();
            failure("error", container.failure());
            end();
        }
        end();
    }

    private static boolean isSkipped(TestResult test) {
        return test.outcome().equals(Outcome.SKIPPED) || test.outcome().equals(Outcome.ABORTED);
    }

    private void counts(int tests, int failures, int errors, int skipped, Duration time) throws XMLStreamException {
        attribute("tests", String.valueOf(tests));
        attribute("failures", String.valueOf(failures));
        attribute("errors", String.valueOf(errors));
        attribute("skipped", String.valueOf(skipped));
        attribute("time", seconds(time));
    }

    private void test(String suite, List<TestResult> attempts) throws XMLStreamException {
        TestResult last = attempts.get(attempts.size() - 1);
        start("testcase");
        attribute("name", last.name());
        attribute("classname", suite);
        attribute("time", seconds(last.duration()));
        start("properties");
        key(last.key());
        if (last.methodName() != null && !last.methodName().equals(last.name()))
            property(OwnProperties.METHOD, last.methodName());
        if (!PLAIN.contains(last.outcome()))
            property(OwnProperties.OUTCOME, last.outcome().word());
        for (String tag : last.tags()) property("tag", tag);
        String label = labels.of(last);
        if (label != null) property("label", label);
        end();
        if (last.outcome().needsAttention()) {
            String kind = last.outcome().equals(Outcome.FAILED) ? "failure" : "error";
            failure(kind, last.failure());
            for (TestResult earlier : attempts.subList(0, attempts.size() - 1)) earlier("rerun", earlier);
        } else if (isSkipped(last)) {
            xml.writeEmptyElement("skipped");
            if (last.reason() != null) attribute("message", last.reason());
        } else {
            for (TestResult earlier : attempts.subList(0, attempts.size() - 1)) earlier("flaky", earlier);
        }
        String output = output(last);
        if (!output.isEmpty()) element("system-out", output);
        end();
    }

    private void key(String key) throws XMLStreamException {
        property(OwnProperties.KEY, ModuleKey.withoutModule(key));
        if (!ModuleKey.module(key).isEmpty()) property(OwnProperties.MODULE, ModuleKey.module(key));
    }

    private void property(String name, String value) throws XMLStreamException {
        xml.writeEmptyElement("property");
        attribute("name", name);
        attribute("value", value);
    }

    private void earlier(String prefix, TestResult attempt) throws XMLStreamException {
        if (!attempt.outcome().needsAttention()) return;
        String kind = attempt.outcome().equals(Outcome.FAILED) ? "Failure" : "Error";
        Failure failure = attempt.failure();
        start(prefix + kind);
        if (failure != null && failure.message() != null) attribute("message", failure.message());
        attribute("type", failure == null ? "unfinished" : failure.type());
        element("stackTrace", failure == null ? "" : failure.stack());
        end();
    }

    private void failure(String kind, @Nullable Failure failure) throws XMLStreamException {
        start(kind);
        if (failure != null && failure.message() != null) attribute("message", failure.message());
        attribute("type", failure == null ? "unfinished" : failure.type());
        xml.writeCharacters(
                XmlText.of(failure == null ? "It was cut off: its end was never recorded." : failure.stack()));
        end();
    }

    private String output(TestResult test) {
        var text = new StringBuilder();
        output(test.entries(), "", text);
        return text.toString();
    }

    private void output(List<Entry> entries, String indent, StringBuilder text) {
        for (Entry entry : entries) {
            if (text.length() > LONGEST_OUTPUT) {
                if (!text.toString().endsWith("…\n")) text.append("…\n");
                return;
            }
            if (entry instanceof Entry.StepEntry step)
                text.append(indent)
                        .append(step.name())
                        .append(" (")
                        .append(step.outcome().text())
                        .append(")\n");
            if (entry instanceof Entry.LogEntry log)
                text.append(indent).append(log.text()).append('\n');
            if (entry instanceof Entry.AttachmentEntry attachment && attachment.file() != null)
                text.append("[[ATTACHMENT|")
                        .append(new RunFolder(run.folder().toAbsolutePath().normalize())
                                .nameInJournal(attachment.file()))
                        .append("]]\n");
            output(Entry.inside(entry), indent + "  ", text);
        }
    }

    private static String seconds(Duration duration) {
        return String.format(Locale.ROOT, "%.3f", duration.toNanos() / 1e9);
    }

    private void start(String name) throws XMLStreamException {
        xml.writeStartElement(name);
    }

    private void end() throws XMLStreamException {
        xml.writeEndElement();
    }

    private void element(String name, String text) throws XMLStreamException {
        start(name);
        xml.writeCharacters(XmlText.of(text));
        end();
    }

    private void attribute(String name, String value) throws XMLStreamException {
        xml.writeAttribute(name, XmlText.of(value));
    }
}
