package dev.verbale.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Tables in memory. */
class OwnMemoryTest extends QueryContract {

    @Override
    RunTables tables() throws Exception {
        return RunTables.inMemory();
    }

    @Override
    TableReader reader(RunTables tables) {
        return tables.reader();
    }

    @Override
    List<String> beyondAsking(Path file) {
        return beyond(file);
    }

    static List<String> beyond(Path file) {
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
