package dev.verbale.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.history.HistoryFolder;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Tables of a team, in a real server. */
class PostgresTest extends QueryContract {

    private static PostgresServer server;

    private String database = "";

    @BeforeAll
    static void start() throws Exception {
        server = PostgresServer.start();
    }

    @AfterAll
    static void stop() throws Exception {
        server.close();
    }

    @Override
    RunTables tables() throws Exception {
        if (database.isEmpty()) database = server.newDatabase();
        RunTables tables = RunTables.at(server.url(database), "owner", "owner's");
        tables.allow("may_read");
        return tables;
    }

    @Override
    TableReader reader(RunTables tables) {
        return TableReader.at(server.url(database), "may_read", "reader's");
    }

    @Override
    List<String> beyondAsking(Path file) {
        return List.of(
                "select pg_read_file('/etc/hostname')",
                "copy stored_runs to '" + file + "'",
                "copy stored_runs to program 'touch " + file + "'",
                "copy stored_outcomes from '/etc/hostname'",
                "select lo_import('/etc/hostname')",
                "create function mine() returns integer language sql as 'select 1'",
                "create schema mine",
                "select * from pg_authid",
                "set role owner",
                "do $$ begin delete from stored_runs; end $$");
    }

    @Test
    void who_may_change_the_tables_is_refused_as_a_reader() throws Exception {
        try (RunTables tables = tables()) {
            assertThatThrownBy(() -> csv(TableReader.at(server.url(database), "owner", "owner's"), "select 1"))
                    .isInstanceOf(QueryException.class)
                    .hasMessageContaining("may change this database");
            assertThatThrownBy(() -> csv(TableReader.at(server.url(database), "may_read", "wrong"), "select 1"))
                    .isInstanceOf(QueryException.class)
                    .hasMessageContaining("password");
            assertThatThrownBy(() -> tables.allow("nobody\"; drop schema verbale; --"))
                    .isInstanceOf(QueryException.class)
                    .hasMessageContaining("does not exist");
            assertThat(csv(reader(tables), "select count(*) as runs from runs")).isEqualTo("runs\n0\n");
        }
    }

    @Test
    void two_at_once_fill_them_one_after_the_other() throws Exception {
        var folder = new HistoryFolder(temporary.resolve("history"));
        for (int night = 0; night < 10; night++) folder.add(night(night, "passed", "failed", "passed"));
        tables().close();
        ExecutorService both = Executors.newFixedThreadPool(2);
        List<Future<RunTables.Update>> filling = new ArrayList<>();
        for (int i = 0; i < 2; i++)
            filling.add(both.submit(() -> {
                try (RunTables tables = tables()) {
                    return tables.update(folder, problem -> {});
                }
            }));
        int added = 0;
        for (Future<RunTables.Update> one : filling) added += one.get().added();
        both.shutdown();

        assertThat(added).isEqualTo(10);
        try (RunTables tables = tables()) {
            assertThat(csv(reader(tables), "select count(*) as results from tests"))
                    .isEqualTo("results\n30\n");
        }
    }

    @Test
    void tables_of_a_later_version_or_of_none_are_left_as_they_are() throws Exception {
        tables().close();
        change("insert into verbale.stored_versions values (99)");
        assertThatThrownBy(this::tables)
                .hasMessageContaining("are of another version (99) than this Verbale makes")
                .hasMessageContaining("drop the schema and fill it again");
        change("delete from verbale.stored_versions");
        assertThatThrownBy(this::tables).hasMessageContaining("of another version (unknown)");
    }

    @Test
    void a_version_that_could_not_be_made_whole_is_taken_back_and_made_the_next_time() throws Exception {
        tables().close(); // whose indexes, the second version, come when they are filled
        change("create table verbale.tests_by_key (in_the_way integer)"); // the second index of the file has its name
        var folder = new HistoryFolder(temporary.resolve("history"));
        folder.add(night(0, "passed"));

        assertThatThrownBy(() -> {
                    try (RunTables tables = tables()) {
                        tables.update(folder, problem -> {});
                    }
                })
                .hasMessageContaining("tests_by_key");
        change("drop table verbale.tests_by_key");
        try (RunTables tables = tables()) {
            tables.update(folder, problem -> {});
            assertThat(csv(reader(tables), "select count(*) as results from tests"))
                    .isEqualTo("results\n1\n");
        }
    }

    private void change(String sql) throws Exception {
        try (Connection owner = DriverManager.getConnection(server.url(database), "owner", "owner's");
                Statement statement = owner.createStatement()) {
            statement.execute(sql);
        }
    }

    @Test
    void another_address_than_one_of_postgresql_is_refused() {
        assertThatThrownBy(() -> TableReader.at("jdbc:h2:mem:x", "a", "b"))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
