package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.cli.StayingJvm.Output;
import dev.verbale.testing.Jvm;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.xml.parsers.DocumentBuilderFactory;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.w3c.dom.Element;
import org.xml.sax.InputSource;

/** A number is one number: whatever says what a run came to, says what was recorded. The runs are made up by chance, and their truth known. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class EveryFaceTest {

    private static final int RUNS = 10;
    private static final List<String> GRAVE = List.of("failed", "errored", "unfinished");
    private static final Map<String, String> WORDS = Map.of("expected-failure", "expected failure");

    @TempDir
    static Path work;

    private StayingJvm jvm;
    private final Map<String, Truth> truths = new TreeMap<>();
    private String printed = "";

    /** What a run came to. */
    record Truth(String run, Map<String, Integer> outcomes, int flaky, int broken) {
        int tests() {
            return outcomes.values().stream().mapToInt(Integer::intValue).sum();
        }

        int failing() {
            return GRAVE.stream()
                    .mapToInt(word -> outcomes.getOrDefault(word, 0))
                    .sum();
        }

        int attention() {
            return failing() + broken;
        }

        @Override
        public String toString() {
            return run + " " + outcomes + ", " + flaky + " flaky, " + broken + " broken";
        }
    }

    @BeforeAll
    void record() throws Exception {
        Jvm recorded =
                Jvm.of(List.of(), RecordedSuites.class, work.resolve("runs").toString(), String.valueOf(RUNS));
        assertThat(recorded.code()).as(recorded.output()).isZero();
        printed = recorded.output();
        Matcher lines = Pattern.compile("truth (\\S+) \\{(.*)} flaky=(\\d+) broken=(\\d+)")
                .matcher(printed);
        while (lines.find()) {
            Map<String, Integer> outcomes = new HashMap<>();
            for (String one : lines.group(2).split(", "))
                if (!one.isEmpty())
                    outcomes.put(one.replaceFirst("=.*", ""), Integer.valueOf(one.replaceFirst(".*=", "")));
            truths.put(
                    lines.group(1),
                    new Truth(
                            lines.group(1),
                            outcomes,
                            Integer.parseInt(lines.group(3)),
                            Integer.parseInt(lines.group(4))));
        }
        assertThat(truths).hasSize(RUNS);
        assertThat(truths.values()).anyMatch(truth -> truth.flaky > 0).anyMatch(truth -> truth.broken > 1);
        jvm = new StayingJvm(work, Map.of("VERBALE_ROOT", "runs"));
        for (String run : truths.keySet()) verbale("history", "add", run);
    }

    @AfterAll
    void end() throws Exception {
        jvm.close();
    }

    Stream<Truth> truths() {
        return truths.values().stream();
    }

    @ParameterizedTest
    @MethodSource("truths")
    void every_face_says_what_was_recorded(Truth truth) throws Exception {
        var softly = new SoftAssertions();
        softly.assertThat(numbers(endLine(truth), "(\\d+) %s\\b", truth))
                .as("end line")
                .isEqualTo(truth.outcomes);
        softly.assertThat(sum("(\\d+) class(?:es)? broke", endLine(truth)))
                .as("end line")
                .isEqualTo(truth.broken);

        String listed = verbale("runs")
                .lines()
                .filter(line -> line.startsWith(truth.run + " "))
                .findFirst()
                .orElseThrow();
        softly.assertThat(numbers(listed, "(\\d+) %s\\b", truth)).as("runs").isEqualTo(truth.outcomes);
        softly.assertThat(sum("(\\d+) of them flaky", listed)).as("runs").isEqualTo(truth.flaky);
        softly.assertThat(sum("(\\d+) class(?:es)? broke", listed)).as("runs").isEqualTo(truth.broken);

        String json = export("json", truth);
        softly.assertThat(numbers(json, "\"%s\":(\\d+)", truth)).as("json").isEqualTo(truth.outcomes);
        softly.assertThat(sum("\"tests\":(\\d+),\"needing", json)).as("json").isEqualTo(truth.tests());
        softly.assertThat(sum("\"needingAttention\":(\\d+)", json)).as("json").isEqualTo(truth.attention());
        softly.assertThat(sum("\"flaky\":(\\d+)", json)).as("json").isEqualTo(truth.flaky);

        String markdown = export("markdown", truth);
        softly.assertThat(numbers(markdown, "\\| %s \\| (\\d+) \\|", truth))
                .as("markdown")
                .isEqualTo(truth.outcomes);
        softly.assertThat(sum("\\| of them flaky \\| (\\d+)", markdown))
                .as("markdown")
                .isEqualTo(truth.flaky);
        softly.assertThat(sum("outside their tests \\| (\\d+)", markdown))
                .as("markdown")
                .isEqualTo(truth.broken);

        headline(softly, "failures", verbale("failures", truth.run), truth);
        headline(softly, "mail", export("mail-text", truth), truth);
        headline(softly, "html mail", export("mail-html", truth).replace("&quot;", "\""), truth);
        headline(softly, "markdown", markdown.replace("\\", ""), truth);
        junit(softly, truth);
        csv(softly, truth);
        history(softly, truth);
        page(softly, truth);
        gate(softly, truth);
        softly.assertAll();
    }

    private String endLine(Truth truth) {
        return printed.lines()
                .filter(line -> line.startsWith("Verbale: ") && line.endsWith(truth.run))
                .reduce((one, two) -> two)
                .orElse("");
    }

    /** The sentence that names those that did not pass, and nothing where all did. */
    private static void headline(SoftAssertions softly, String face, String wrapped, Truth truth) {
        String text = wrapped.replaceAll("\\s+", " "); // a terminal breaks it
        softly.assertThat(sum("(\\d+) of \\d+ tests? did not pass", text))
                .as(face)
                .isEqualTo(truth.failing());
        softly.assertThat(sum("(\\d+) tests? (?:is|are) flaky: ", text))
                .as(face)
                .isEqualTo(truth.flaky);
        long broken = sum("(\\d+) classes broke outside", text)
                + Pattern.compile("\" broke outside").matcher(text).results().count();
        softly.assertThat(broken).as(face).isEqualTo(truth.broken);
    }

    private void junit(SoftAssertions softly, Truth truth) throws Exception {
        String xml = export("junit", truth);
        Element suites = DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new InputSource(new StringReader(xml)))
                .getDocumentElement();
        softly.assertThat(suites.getAttribute("tests")).as("xml").isEqualTo("" + (truth.tests() + truth.broken));
        int red = Integer.parseInt(suites.getAttribute("failures")) + Integer.parseInt(suites.getAttribute("errors"));
        softly.assertThat(red).as("xml").isEqualTo(truth.attention());
        int marked = suites.getElementsByTagName("failure").getLength()
                + suites.getElementsByTagName("error").getLength();
        softly.assertThat(marked).as("xml").isEqualTo(truth.attention());
        Files.createDirectories(work.resolve("xml"));
        Files.writeString(work.resolve("xml").resolve(truth.run + ".xml"), xml);
    }

    private void csv(SoftAssertions softly, Truth truth) throws Exception {
        Map<String, Integer> counted = new HashMap<>();
        int flaky = 0;
        List<String> lines = export("tests-csv", truth).lines().toList();
        for (String line : lines.subList(1, lines.size())) {
            String[] cells = line.split(",", -1);
            if (cells[7].equals("true")) counted.merge(cells[5], 1, Integer::sum);
            if (cells[8].equals("true")) flaky++;
        }
        softly.assertThat(counted).as("csv").isEqualTo(truth.outcomes);
        softly.assertThat(flaky).as("csv").isEqualTo(truth.flaky);
    }

    private void history(SoftAssertions softly, Truth truth) throws Exception {
        String columns =
                "tests, needing_attention, broken, (select count(*) from tests t where t.run_id = r.run_id and flaky) as flaky from runs r";
        String expected = truth.tests() + "," + truth.attention() + "," + truth.broken + "," + truth.flaky;
        softly.assertThat(verbale("runs", "query", "select " + columns, truth.run, "--format", "csv")
                        .lines()
                        .skip(1))
                .as("query")
                .containsExactly(expected);
        softly.assertThat(verbale(
                                "runs",
                                "query",
                                "select " + columns + " where run = '" + truth.run + "'",
                                "--remembered",
                                "--format",
                                "csv")
                        .lines()
                        .skip(1))
                .as("history in SQL")
                .containsExactly(expected);
        String line = verbale("runs", "--remembered", "--limit", "99")
                .lines()
                .filter(one -> one.startsWith(truth.run + " "))
                .findFirst()
                .orElseThrow();
        softly.assertThat(sum("(\\d+) needs? attention", line)).as("history").isEqualTo(truth.attention());
    }

    private void page(SoftAssertions softly, Truth truth) throws Exception {
        verbale("page", truth.run, "--output", "page-" + truth.run);
        String data = Files.readString(work.resolve("page-" + truth.run + "/data/run.js"));
        String counts = data.substring(data.indexOf("\"counts\""), data.indexOf('}', data.indexOf("\"counts\"")));
        softly.assertThat(numbers(counts, "\"%s\":(\\d+)", truth)).as("page").isEqualTo(truth.outcomes);
        softly.assertThat(sum("\"allFlaky\":(\\d+)", data)).as("page").isEqualTo(truth.flaky);
        String broken = data.substring(data.indexOf("\"broken\":"), data.indexOf("\"outside\":"));
        softly.assertThat(Pattern.compile("\\[\"").matcher(broken).results().count())
                .as("page")
                .isEqualTo(truth.broken);
        headline(softly, "page", data.replace("\\\"", "\""), truth);
        String plain = Files.readString(work.resolve("page-" + truth.run + "/index.html"))
                .replace("&quot;", "\"");
        String summary = plain.substring(plain.indexOf("<main"), plain.indexOf("</main>"));
        softly.assertThat(numbers(summary, "<b>(\\d+)</b> %s<", truth))
                .as("page without scripts")
                .isEqualTo(truth.outcomes);
        headline(softly, "page without scripts", summary, truth);
    }

    private void gate(SoftAssertions softly, Truth truth) throws Exception {
        Output gate = jvm.run("gate", truth.run);
        softly.assertThat(gate.code()).as("gate").isEqualTo(truth.attention() > 0 || truth.tests() == 0 ? 5 : 0);
        String why = gate.out()
                .lines()
                .filter(line -> line.contains("attention"))
                .findFirst()
                .orElse("");
        softly.assertThat(sum("(\\d+) tests?\\b", why) + sum("(\\d+) class", why))
                .as("gate")
                .isEqualTo(truth.attention());
    }

    /** Those of the truth's outcomes that {@code form} finds, %s standing for the outcome. */
    private static Map<String, Integer> numbers(String text, String form, Truth truth) {
        Map<String, Integer> found = new HashMap<>();
        for (String outcome :
                List.of("passed", "skipped", "aborted", "expected-failure", "unfinished", "failed", "errored")) {
            String word = text.contains("\"" + outcome + "\":") ? outcome : WORDS.getOrDefault(outcome, outcome);
            Matcher number = Pattern.compile(String.format(form, word)).matcher(text);
            if (number.find()) found.put(outcome, Integer.valueOf(number.group(1)));
        }
        return found;
    }

    private static int sum(String form, String text) {
        Matcher number = Pattern.compile(form).matcher(text);
        return number.find() ? Integer.parseInt(number.group(1)) : 0;
    }

    private String export(String format, Truth truth) throws Exception {
        return verbale("export", "--format", format, truth.run);
    }

    private String verbale(String... arguments) throws Exception {
        Output output = jvm.run(arguments);
        assertThat(output.code()).as(output.err()).isZero();
        return output.out();
    }
}
