package dev.verbale.hub;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.io.IOException;
import java.nio.file.Path;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.FlywayException;
import org.jdbi.v3.core.Jdbi;

/** The tables, in a schema of their own, brought to this version when it is opened: forward only. */
final class HubDatabase implements AutoCloseable {

    private static final String SCHEMA = "verbale_hub";
    private static final int CONNECTIONS = 16;

    private final HikariDataSource source;
    private final Jdbi jdbi;

    private HubDatabase(HikariDataSource source) {
        this.source = source;
        this.jdbi = Jdbi.create(source);
    }

    /** @throws IOException where it cannot be reached, or a later version made its tables; the message says which */
    static HubDatabase open(HubOptions options) throws IOException {
        var config = new HikariConfig();
        HubOptions.Database team = options.database();
        config.setJdbcUrl(team == null ? embedded(options.folder()) : team.url());
        config.setUsername(team == null ? "hub" : team.user());
        config.setPassword(team == null ? "" : team.password());
        config.setSchema(SCHEMA);
        config.setPoolName("hub");
        config.setMaximumPoolSize(CONNECTIONS);
        config.setMinimumIdle(1);
        config.setInitializationFailTimeout(-1); // Flyway is the first to ask, and says what is wrong
        var source = new HikariDataSource(config);
        try {
            Flyway.configure()
                    .dataSource(config.getJdbcUrl(), config.getUsername(), config.getPassword())
                    .locations("classpath:dev/verbale/hub/tables")
                    .schemas(SCHEMA)
                    .load()
                    .migrate();
            return new HubDatabase(source);
        } catch (FlywayException refused) {
            source.close();
            throw new IOException(
                    "The hub's database " + (team == null ? "in " + options.folder() : team) + " cannot be used: "
                            + String.valueOf(refused.getMessage()).strip().replaceAll("\\s+", " "),
                    refused);
        }
    }

    private static String embedded(Path folder) {
        return "jdbc:h2:file:" + folder.resolve("database").toAbsolutePath()
                + ";MODE=PostgreSQL;DATABASE_TO_LOWER=TRUE;DEFAULT_NULL_ORDERING=HIGH;DB_CLOSE_ON_EXIT=FALSE";
    }

    Jdbi jdbi() {
        return jdbi;
    }

    @Override
    public void close() {
        source.close();
    }
}
