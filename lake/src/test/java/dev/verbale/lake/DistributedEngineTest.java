package dev.verbale.lake;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.history.History;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.query.HistoryTables;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;

/** A master and two workers of a distributed engine read the same files, and answer the same, row by row. */
@EnabledIfSystemProperty(named = "verbale.night", matches = "true", disabledReason = "by night: the engine is 280 MB")
class DistributedEngineTest {

    @TempDir
    Path root;

    @Test
    void each_question_is_answered_as_by_the_history_and_by_the_engine_in_this_process() throws Exception {
        List<RunDigest> digests = new MadeUpRuns(1, 60).runs(46);
        var lake = new Lake(root.resolve("lake"));
        lake.add("orto", digests.stream().map(LakeRun::of).toList());
        Path answers = root.resolve("answers");
        List<String> command = new ArrayList<>(List.of(
                "bash",
                Path.of("../bin/spark").toAbsolutePath().toString(),
                lake.path().toString(),
                answers.toString()));
        for (String name : Questions.names())
            command.add(Path.of("../docs/questions", name).toAbsolutePath().toString());

        Path log = root.resolve("log");
        int code = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(log.toFile())
                .start()
                .waitFor();

        assertThat(code).as(Files.readString(log)).isZero();
        assertThat(Files.readString(log)).contains("executors: 2");
        try (HistoryTables history = HistoryTables.of(History.of(digests));
                LakeTables tables = LakeTables.of(lake, null)) {
            for (String name : Questions.names()) {
                List<String> distributed = Files.readAllLines(answers.resolve(name));
                assertThat(distributed).as(name).isNotEmpty();
                assertThat(Answer.of(tables.reader(), Questions.read(name)))
                        .as(name)
                        .isEqualTo(distributed);
                assertThat(Answer.of(history.reader(), Questions.read(name)))
                        .as(name)
                        .isEqualTo(distributed);
            }
        }
    }
}
