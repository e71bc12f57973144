package dev.verbale.rules;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.rules.TriageRule.Subject;
import dev.verbale.rules.yaml.YamlFormatException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The file of rules. */
class RulesTest {

    private static final String GOOD = """
            # whose failures are whose
            labels: [seeds team]
            triage:
              - when: {type: ConnectException, message: [refused, /timed? out/]}
                label: environment
                owner: platform
                link: https://wiki.orto.example/shed
                comment: "The shed's router drops at night"
                known-until: 2026-12-31
              - when:
                  exchange: /POST .*loans 409/
                label: seeds team
            gate:
              new-failures: 0
              min-tests: 60
            """;

    @TempDir
    Path folder;

    @Test
    void a_file_says_who_looks_after_what_and_when_a_build_fails() throws Exception {
        Rules rules = read(GOOD);

        assertThat(rules.triage()).hasSize(2);
        TriageRule first = rules.triage().get(0);
        assertThat(first.line()).isEqualTo(4);
        assertThat(first.when().get(Subject.MESSAGE))
                .extracting(TextPattern::written)
                .containsExactly("refused", "/timed? out/");
        assertThat(first)
                .extracting(TriageRule::label, TriageRule::owner, TriageRule::knownUntil)
                .containsExactly("environment", "platform", LocalDate.parse("2026-12-31"));
        assertThat(rules.gate()).isEqualTo(new GateRules(null, 0, null, null, null, null, 60, null, null, 0, 0, 0));
        assertThat(rules.gate().needsBaseline()).isTrue();
        assertThat(read("")).isEqualTo(Rules.NONE);
        assertThat(read("labels: [a]\n").gate()).isEqualTo(GateRules.STRICT);
    }

    @Test
    void the_example_of_the_documentation_can_be_read() throws Exception {
        String page = Files.readString(Path.of("../docs/rules.md"));
        String example = page.substring(page.indexOf("```yaml\n") + 8, page.indexOf("\n```\n"));

        Rules rules = read(example);

        assertThat(rules.triage()).extracting(TriageRule::label).containsExactly("environment", "seeds team");
        assertThat(rules.gate().minTests()).isEqualTo(60);
        for (Subject subject : Subject.values()) assertThat(page).contains("`" + subject.word() + "`");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "triage: [{label: product}] | 1:10: this rule has no 'when'",
                "triage: [{when: {tag: a}}] | 1:10: this rule has no 'label'",
                "triage: [{when: {tag: a}, label: ours}] | 1:34: the label 'ours' is not known. Write one of [product, test, environment]",
                "triage: [{when: {tags: a}, label: test}] | 1:18: 'tags' is not known here. Known are outcome, message, type",
                "triage: [{when: {}, label: test}] | 1:17: 'when' is empty, and would match every failure",
                "triage: [{when: {tag: ''}, label: test}] | 1:23: 'tag' is empty, and would match everything",
                "triage: [{when: {tag: /(/}, label: test}] | 1:23: '/(/' is no regular expression: Unclosed group",
                "triage: [{when: {tag: {}}, label: test}] | 1:23: 'tag' is no text",
                "triage: [{when: {tag: a}, label: test, known-until: soon}] | 1:53: 'soon' is no day. Write it as 2026-12-31",
                "triage: {} | 1:9: 'triage' is no list",
                "- a | 1:1: the file is no mapping",
                "gate: {failures: few} | 1:18: 'few' is no number",
                "gate: {failure: 1} | 1:8: 'failure' is not known here. Known are failures, new-failures",
                "gate: {} | 1:7: the gate asks for nothing",
                "gate: {flaky: 1, flaky: 2} | 1:18: 'flaky' stands here twice",
                "gate: {flaky: [ | 1:16: this is no YAML"
            })
    void a_mistake_is_named_by_its_line_and_column(String text, String message) {
        assertThatThrownBy(() -> read(text))
                .isInstanceOf(YamlFormatException.class)
                .hasMessageContaining("rules.yaml:" + message);
    }

    @Test
    void whatever_the_file_holds_it_is_read_or_refused_with_its_place() throws Exception {
        Random random = new Random(5);
        byte[] good = GOOD.getBytes(StandardCharsets.UTF_8);
        int refused = 0;
        int rounds = Boolean.getBoolean("verbale.night") ? 5_000 : 500;
        for (int i = 0; i < rounds; i++) {
            byte[] mutated = good.clone();
            for (int changes = random.nextInt(3) + 1; changes > 0; changes--)
                mutated[random.nextInt(mutated.length)] =
                        (byte) "{}[]:-# \n\t\"'&*!|>%@/\\(\u00FF".charAt(random.nextInt(23));
            Path file = Files.write(folder.resolve("rules.yaml"), mutated);
            try {
                RulesReader.read(file);
            } catch (YamlFormatException bad) {
                refused++;
                assertThat(bad.getMessage()).matches("(?s).*rules\\.yaml:\\d+:\\d+: .*\\.");
            }
        }
        assertThat(refused).isBetween(rounds / 10, rounds);
        Files.writeString(folder.resolve("rules.yaml"), "a: ".repeat(1) + "[".repeat(50_000));
        assertThatThrownBy(() -> RulesReader.read(folder.resolve("rules.yaml")))
                .isInstanceOf(YamlFormatException.class);
    }

    @Test
    void what_is_written_is_read_as_it_was_whatever_people_wrote() throws Exception {
        List<TriageRule> rules = new ArrayList<>(read(GOOD).triage());
        for (String odd : List.of(
                "yes",
                "null",
                "17",
                "2026-12-31",
                "- a",
                "a: b",
                "#",
                "{x}",
                "\"",
                "'",
                "\\",
                "%",
                "@ada",
                "!tag",
                "&a *a",
                " x ",
                "wet\nsoil",
                "Käse \uD83C\uDF31",
                "\u202Eelbbub",
                "x".repeat(2_000),
                "tab\there",
                "<script>"))
            rules.add(TriageRule.ofReason("3f09a1c2b7d4", odd, odd, odd, odd, LocalDate.parse("2031-01-02")));

        List<TriageRule> again =
                RulesReader.read(Path.of("the hub"), RulesWriter.write(rules)).triage();

        assertThat(again).hasSameSizeAs(rules);
        for (int i = 0; i < rules.size(); i++) {
            TriageRule was = rules.get(i);
            TriageRule is = again.get(i);
            assertThat(RulesWriter.write(List.of(is))).isEqualTo(RulesWriter.write(List.of(was)));
            assertThat(is.label()).isEqualTo(was.label());
            assertThat(is.owner()).isEqualTo(was.owner());
            assertThat(is.link()).isEqualTo(was.link());
            assertThat(is.comment()).isEqualTo(was.comment());
            assertThat(is.knownUntil()).isEqualTo(was.knownUntil());
            assertThat(is.when().keySet()).isEqualTo(was.when().keySet());
        }
        assertThat(RulesReader.read(Path.of("the hub"), RulesWriter.write(List.of()))
                        .triage())
                .isEmpty();
    }

    private Rules read(String text) throws Exception {
        return RulesReader.read(Files.writeString(folder.resolve("rules.yaml"), text));
    }
}
