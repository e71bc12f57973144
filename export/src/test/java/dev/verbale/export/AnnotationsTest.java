package dev.verbale.export;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Lines in the grammars that CI systems read, whatever a test recorded. */
class AnnotationsTest {

    private static final String HOSTILE = "100 %, a:b; [c] 'd' |e|\r\n::error::x\n##teamcity[x]\n##vso[task.x]y \u00e9";

    private static FailedLine failed(String text, String file) {
        return new FailedLine(
                "k", "Rota \u203A swaps, twice: " + text, text, "ab12", text, file, file.isEmpty() ? 0 : 31);
    }

    @Test
    void each_system_has_its_own_words() {
        FailedLine failed = new FailedLine(
                "k", "Rota > swaps", "expected Ada", "ab12", "expected Ada", "src/test/java/RotaTest.java", 31);

        assertThat(Annotations.WORKFLOW_COMMANDS.line(failed))
                .isEqualTo("::error file=src/test/java/RotaTest.java,line=31,title=Rota > swaps::expected Ada");
        assertThat(Annotations.LOG_ISSUES.line(failed))
                .isEqualTo(
                        "##vso[task.logissue type=error;sourcepath=src/test/java/RotaTest.java;linenumber=31;]Rota > swaps: expected Ada");
        assertThat(Annotations.SERVICE_MESSAGES.line(failed))
                .isEqualTo(
                        "##teamcity[buildProblem description='src/test/java/RotaTest.java:31: Rota > swaps: expected Ada' identity='ab12-6b']");
        assertThat(Annotations.LINES.line(failed))
                .isEqualTo("src/test/java/RotaTest.java:31: Rota > swaps: expected Ada");
    }

    @ParameterizedTest
    @EnumSource(Annotations.class)
    void nothing_that_was_recorded_is_a_word_of_its_own(Annotations form) {
        for (String file : List.of("", "a,b:c;d/[X]'Test.java")) {
            String line = form.line(failed(HOSTILE, file));
            assertThat(line).doesNotContain("\n", "\r");
            switch (form) {
                case WORKFLOW_COMMANDS ->
                    assertThat(line)
                            .matches("::error (file=[^:,]+,line=31,)?title=[^:,]+::.*")
                            .contains("100 %25");
                case LOG_ISSUES ->
                    assertThat(line)
                            .matches("##vso\\[task\\.logissue type=error;(sourcepath=[^;\\]]+;linenumber=31;)?].*");
                case SERVICE_MESSAGES ->
                    assertThat(line)
                            .matches(
                                    "##teamcity\\[buildProblem description='([^'|\\[\\]\\n]|\\|.)*' identity='[a-z0-9-]+']")
                            .contains("|0x00E9");
                default -> assertThat(line).contains("100 %");
            }
        }
    }

    @ParameterizedTest
    @CsvSource({
        "GITHUB_ACTIONS, WORKFLOW_COMMANDS",
        "TF_BUILD, LOG_ISSUES",
        "TEAMCITY_VERSION, SERVICE_MESSAGES",
        "GITLAB_CI, LINES",
        "HOME, LINES"
    })
    void a_job_gets_what_its_system_reads(String variable, Annotations form) {
        assertThat(Annotations.of(Map.of(variable, "true"))).isEqualTo(form);
    }
}
