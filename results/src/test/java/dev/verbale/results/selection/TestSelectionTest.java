package dev.verbale.results.selection;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.results.SampleRun;
import dev.verbale.vocabulary.Outcome;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Tests as runners take them. */
class TestSelectionTest {

    @TempDir
    Path root;

    private TestSelection selection;

    @BeforeEach
    void select() throws Exception {
        SampleRun run = SampleRun.in(root, "run");
        add(run, 1, "dev.orto.RotaTest$Swapping.swaps(int, int)#1", "dev.orto.RotaTest$Swapping", "swaps", null);
        add(run, 2, "dev.orto.RotaTest$Swapping.swaps(int, int)#2", "dev.orto.RotaTest$Swapping", "swaps", null);
        add(run, 3, "dev.orto.RotaTest$Swapping.refuses()", "dev.orto.RotaTest$Swapping", "refuses", null);
        add(run, 4, "dev.orto.KotlinTest.roses grow, slowly()", "dev.orto.KotlinTest", "roses grow, slowly", null);
        add(run, 5, "dev.orto.KotlinTest.plain()", "dev.orto.KotlinTest", "plain", null);
        add(run, 6, "dev/orto/rota.feature/Two swap", null, null, "dev/orto/rota.feature:14");
        add(run, 7, "dev/orto/rota.feature/Refused#2", null, null, "dev/orto/rota.feature:9");
        add(run, 8, "keyword table", null, null, null);
        selection = TestSelection.of(run.read().tests());
    }

    private static void add(SampleRun run, int id, String key, String type, String method, String source)
            throws Exception {
        run.write(
                TestStarted.of(id * 10L, id, key, key)
                        .className(type)
                        .methodName(method)
                        .thread("main")
                        .source(source)
                        .build(),
                TestEnded.of(id * 10L + 1, id, Outcome.PASSED).build());
    }

    @Test
    void each_runner_gets_its_own_words() {
        assertThat(selection.forSurefire()).isEqualTo("dev.orto.KotlinTest,dev.orto.RotaTest$Swapping#refuses+swaps");
        assertThat(selection.forCucumber()).containsExactly("classpath:dev/orto/rota.feature:9:14");
        assertThat(selection.forTestNG())
                .containsExactly(
                        "dev.orto.KotlinTest.*",
                        "dev.orto.RotaTest$Swapping.refuses",
                        "dev.orto.RotaTest$Swapping.swaps");
        assertThat(selection.forGradle()).isEqualTo(selection.forTestNG());
        assertThat(selection.forJUnitConsole())
                .containsExactly(
                        "--select-class=dev.orto.KotlinTest",
                        "--select-class=dev.orto.RotaTest$Swapping",
                        "--include-methodname=\\Qdev.orto.KotlinTest\\E#.*",
                        "--include-methodname=\\Qdev.orto.RotaTest$Swapping\\E#\\Qrefuses\\E(\\(.*)?",
                        "--include-methodname=\\Qdev.orto.RotaTest$Swapping\\E#\\Qswaps\\E(\\(.*)?",
                        "--select-resource=dev/orto/rota.feature?line=9",
                        "--select-resource=dev/orto/rota.feature?line=14");
        assertThat(selection.unknown()).containsExactly("keyword table");
        assertThat(selection.byClass().forJUnitConsole()).noneMatch(one -> one.contains("methodname"));
        assertThat(selection.byClass().forSurefire()).isEqualTo("dev.orto.KotlinTest,dev.orto.RotaTest$Swapping");
        assertThat(TestSelection.of(List.of()).isEmpty()).isTrue();
    }

    /** A shell is asked what it makes of it. */
    @Test
    void a_word_comes_out_of_the_shell_as_it_went_in() throws Exception {
        Random random = new Random(2);
        String nasty = "$`\"'\\!*?[]{}()<>|&;#~ \t\nä€a=-,:%";
        var script = new StringBuilder();
        var expected = new StringBuilder();
        for (int i = 0; i < 500; i++) {
            var word = new StringBuilder();
            for (int length = random.nextInt(12); length >= 0; length--)
                word.append(nasty.charAt(random.nextInt(nasty.length())));
            script.append("printf '%s|' ")
                    .append(ShellWord.posix(word.toString()))
                    .append('\n');
            expected.append(word).append('|');
        }
        Process shell = new ProcessBuilder("sh").redirectErrorStream(true).start();
        try (var in = shell.getOutputStream()) {
            in.write(script.toString().getBytes(StandardCharsets.UTF_8));
        }

        assertThat(new String(shell.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                .isEqualTo(expected.toString());
    }
}
