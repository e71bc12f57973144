package dev.verbale.imports;

import dev.verbale.event.Failure;
import dev.verbale.json.WallClockText;
import dev.verbale.vocabulary.Outcome;
import java.io.InputStream;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Set;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.jspecify.annotations.Nullable;

/** JUnit-style XML, of whatever tool: what it does not know it passes over, and of a broken file it keeps what stands before the break. */
final class JUnitXmlFile {

    private static final Set<String> ATTEMPTS = Set.of("flakyFailure", "flakyError", "rerunFailure", "rerunError");

    private final ForeignResults results = new ForeignResults();
    private String suite = "tests";
    private @Nullable ForeignTest test;

    private JUnitXmlFile() {}

    static ForeignResults read(InputStream in) {
        var file = new JUnitXmlFile();
        try {
            XMLInputFactory factory = XMLInputFactory.newFactory();
            // A file from elsewhere may name files of this machine, or grow without end.
            factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
            factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
            factory.setProperty(XMLInputFactory.IS_COALESCING, true);
            file.elements(factory.createXMLStreamReader(in));
        } catch (XMLStreamException broken) {
            int line = broken.getLocation() == null ? 0 : broken.getLocation().getLineNumber();
            String why = String.valueOf(broken.getMessage())
                    .lines()
                    .reduce((first, last) -> last)
                    .orElse("");
            file.torn();
            file.results.problem(
                    line,
                    "is no XML from here on (" + why
                            + "); what stands before it counts, and what came after is not known");
        }
        return file.results;
    }

    /** The test at the tear did not come to its end, whatever it says until there. */
    private void torn() {
        results.isTorn = true;
        if (test != null) test.isCut = true;
    }

    private void elements(XMLStreamReader xml) throws XMLStreamException {
        boolean isOne = false;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                String name = xml.getLocalName();
                isOne |= name.equals("testsuites") || name.equals("testsuite");
                if (!isOne) {
                    results.isTorn = true;
                    results.problem(
                            xml.getLocation().getLineNumber(), "begins with <" + name + ">, and is no JUnit-style XML");
                    return;
                }
                start(xml, name);
            } else if (event == XMLStreamConstants.END_ELEMENT
                    && xml.getLocalName().equals("testcase")) test = null;
        }
    }

    private void start(XMLStreamReader xml, String name) throws XMLStreamException {
        switch (name) {
            case "testsuite" -> suite(xml);
            case "testcase" -> testCase(xml);
            case "failure" -> ended(xml, Outcome.FAILED);
            case "error" -> ended(xml, Outcome.ERRORED);
            case "skipped", "disabled" -> skipped(xml);
            case "property" -> property(xml);
            case "system-out", "system-err" -> output(text(xml));
            default -> {
                if (ATTEMPTS.contains(name)) attempt(xml);
            }
        }
    }

    private void suite(XMLStreamReader xml) {
        suite = attribute(xml, "name", suite);
        Instant at = moment(attribute(xml, "timestamp", ""));
        if (at != null && (results.started == null || at.isBefore(results.started))) results.started = at;
        String host = attribute(xml, "hostname", "");
        if (!host.isEmpty()) results.facts.putIfAbsent("host", host);
    }

    private static @Nullable Instant moment(String text) {
        try {
            return text.isEmpty() ? null : possible(OffsetDateTime.parse(text).toInstant());
        } catch (DateTimeException noOffset) {
            try {
                return possible(LocalDateTime.parse(text).toInstant(ZoneOffset.UTC));
            } catch (DateTimeException noMoment) {
                return null;
            }
        }
    }

    private static @Nullable Instant possible(Instant moment) {
        return WallClockText.isPossible(moment) ? moment : null;
    }

    private void testCase(XMLStreamReader xml) {
        var one = new ForeignTest(attribute(xml, "classname", suite), attribute(xml, "name", "a test without a name"));
        one.micros = micros(attribute(xml, "time", "0"), xml);
        test = one;
        results.tests.add(one);
    }

    private long micros(String seconds, XMLStreamReader xml) {
        try {
            double value = Double.parseDouble(seconds.replace(",", ""));
            return value >= 0 && value < 1e9 ? Math.round(value * 1e6) : 0;
        } catch (NumberFormatException odd) {
            results.problem(xml.getLocation().getLineNumber(), "has the time '" + seconds + "', which is no number");
            return 0;
        }
    }

    private void ended(XMLStreamReader xml, Outcome outcome) throws XMLStreamException {
        ForeignTest one = test;
        if (one == null) return;
        String type = attribute(xml, "type", outcome.word());
        String message = xml.getAttributeValue(null, "message");
        boolean isFirst = one.failure == null; // of several the first: a case has one outcome
        if (isFirst) {
            one.outcome = outcome;
            one.failure = failure(type, message, ""); // the file may end before its stack does
        }
        String stack = text(xml);
        if (isFirst) one.failure = failure(type, message, stack);
    }

    private static Failure failure(String type, @Nullable String message, String stack) {
        String summary = message;
        if (summary == null && !stack.isBlank())
            summary = stack.strip().lines().findFirst().orElse(null);
        return Failure.of(type.isBlank() ? "failure" : type, stack)
                .message(summary)
                .build();
    }

    private void skipped(XMLStreamReader xml) throws XMLStreamException {
        ForeignTest one = test;
        if (one == null) return;
        String message = xml.getAttributeValue(null, "message");
        String text = text(xml);
        one.outcome = Outcome.SKIPPED;
        one.reason = message != null ? message : text.isBlank() ? null : text.strip();
    }

    private void attempt(XMLStreamReader xml) throws XMLStreamException {
        ForeignTest one = test;
        String type = attribute(xml, "type", "failure");
        String message = xml.getAttributeValue(null, "message");
        String end = xml.getLocalName();
        var stack = new StringBuilder();
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.END_ELEMENT && xml.getLocalName().equals(end)) break;
            if (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA)
                stack.append(xml.getText());
        }
        Outcome outcome = end.endsWith("Error") ? Outcome.ERRORED : Outcome.FAILED;
        if (one != null)
            one.earlier.add(new ForeignTest.Attempt(
                    outcome, failure(type, message, stack.toString().strip())));
    }

    private void property(XMLStreamReader xml) {
        String name = attribute(xml, "name", "");
        if (name.isEmpty()) return;
        String value = attribute(xml, "value", "");
        if (test != null) test.property(name, value);
    }

    private void output(String text) {
        List<String> into = test == null ? results.output : test.output;
        if (!text.isBlank()) into.add(text.strip());
    }

    /** All text up to the end of this element, also that of elements in it. */
    private static String text(XMLStreamReader xml) throws XMLStreamException {
        var text = new StringBuilder();
        for (int depth = 1; depth > 0 && xml.hasNext(); ) {
            int event = xml.next();
            if (event == XMLStreamConstants.START_ELEMENT) depth++;
            else if (event == XMLStreamConstants.END_ELEMENT) depth--;
            else if (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA)
                text.append(xml.getText());
        }
        return text.toString();
    }

    private static String attribute(XMLStreamReader xml, String name, String fallback) {
        String value = xml.getAttributeValue(null, name);
        return value == null || value.isBlank() ? fallback : value;
    }
}
