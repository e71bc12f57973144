package dev.verbale.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.history.HistoryFolder;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Tables in a file of our own. */
class OwnFileTest extends QueryContract {

    @Override
    RunTables tables() throws Exception {
        return RunTables.inFolder(temporary.resolve("index"));
    }

    @Override
    TableReader reader(RunTables tables) {
        return tables.reader();
    }

    @Override
    List<String> beyondAsking(Path file) {
        return List.of(
                "select file_read('/etc/hostname')",
                "call file_write('x', '" + file + "')",
                "select * from csvread('/etc/hostname')",
                "call csvwrite('" + file + "', 'select 1')",
                "script to '" + file + "'",
                "backup to '" + file + "'",
                "runscript from '/etc/hostname'",
                "create alias mine for 'java.lang.System.getProperty'",
                "create trigger mine before select on stored_runs call 'java.lang.String'",
                "create linked table mine('', 'jdbc:h2:mem:', 'sa', '', 'x')",
                "call link_schema('a', '', 'jdbc:h2:mem:', 'sa', '', 'b')",
                "create user mine password ''",
                "alter user reader admin true",
                "set password 'x'",
                "create schema mine",
                "set max_memory_rows 1",
                "shutdown");
    }

    @Test
    void a_reader_that_changed_its_password_is_let_in_the_next_time() throws Exception {
        try (RunTables tables = tables()) {
            for (String sql :
                    List.of("set password 'x'", "select 1; set password 'x'", "alter user reader set password 'x'"))
                org.assertj.core.api.Assertions.catchThrowable(() -> csv(tables.reader(), sql));
        }
        try (RunTables tables = tables()) {
            assertThat(csv(tables.reader(), "select count(*) as runs from runs"))
                    .isEqualTo("runs\n0\n");
        }
    }

    @Test
    void tables_are_there_again_and_made_anew_where_their_file_is_broken() throws Exception {
        var folder = new HistoryFolder(temporary.resolve("history"));
        for (int night = 0; night < 5; night++) folder.add(night(night, "passed", "failed", "passed"));
        String question = "select run, test, outcome from tests order by run, test";
        String whole;
        try (RunTables tables = tables()) {
            tables.update(folder, problem -> {});
            whole = csv(tables.reader(), question);
        }
        try (RunTables tables = tables()) {
            assertThat(tables.update(folder, problem -> {}).added()).isZero();
            assertThat(csv(tables.reader(), question)).isEqualTo(whole);
        }
        Path file = temporary.resolve("index/verbale-index.mv.db");
        byte[] good = Files.readAllBytes(file);
        var random = new Random(7);
        for (int i = 0; i < 20; i++) {
            if (i % 2 == 0) Files.write(file, java.util.Arrays.copyOf(good, random.nextInt(good.length)));
            else {
                Files.write(file, good);
                try (var broken = new RandomAccessFile(file.toFile(), "rw")) {
                    broken.setLength(good.length);
                    for (int hit = 0; hit < 2_000; hit++) {
                        broken.seek(random.nextInt(good.length));
                        broken.write(random.nextInt());
                    }
                }
            }
            try (RunTables tables = tables()) {
                tables.update(folder, problem -> {});
                assertThat(csv(tables.reader(), question)).as("mutation " + i).isEqualTo(whole);
            }
        }
    }

    @Test
    void a_database_of_somebody_else_is_left_as_it_is() throws Exception {
        Path file = temporary.resolve("theirs/verbale-index");
        try (var theirs = java.sql.DriverManager.getConnection("jdbc:h2:file:" + file, "ada", "secret");
                var statement = theirs.createStatement()) {
            statement.execute("create table beds (bed integer)");
        }

        assertThatThrownBy(() -> RunTables.inFolder(file.getParent()))
                .isInstanceOf(QueryException.class)
                .hasMessageContaining("somebody else's database");

        try (var theirs = java.sql.DriverManager.getConnection("jdbc:h2:file:" + file, "ada", "secret");
                var statement = theirs.createStatement();
                var beds = statement.executeQuery("select count(*) from beds")) {
            assertThat(beds.next()).isTrue();
        }
    }

    @Test
    void a_folder_that_cannot_be_written_is_named() throws Exception {
        Path file = Files.writeString(temporary.resolve("file"), "x");

        assertThatThrownBy(() -> RunTables.inFolder(file.resolve("index"))).isInstanceOf(QueryException.class);
        assertThatThrownBy(() -> RunTables.inFolder(temporary.resolve("a;b")))
                .isInstanceOf(QueryException.class)
                .hasMessageContaining("semicolon");
        assertThat(file).hasContent("x");
    }

    @Test
    void tables_in_memory_are_gone_with_whoever_filled_them() throws Exception {
        List<String> found = new ArrayList<>();
        TableReader reader;
        try (RunTables tables = RunTables.inMemory()) {
            reader = tables.reader();
            found.add(csv(reader, "select count(*) as runs from runs"));
        }

        assertThat(found).containsExactly("runs\n0\n");
        assertThatThrownBy(() -> csv(reader, "select count(*) from runs")).isInstanceOf(QueryException.class);
    }
}
