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
    private static final int LONGEST_REASON = 300;

    private final HikariDataSource source;
    private final Jdbi jdbi;

    private HubDatabase(HikariDataSource source) {
        this.source = source;
        this.jdbi = Jdbi.create(source);
    }

    /** @throws IOException where it cannot be reached, or a later version made its tables; the message says which */
    static HubDatabase open(HubOptions options) throws IOException {
        HubOptions.Database team = options.database();
        String url = team == null ? embedded(options.folder()) : team.url();
        String user = team == null ? "hub" : team.user();
        String password = team == null ? "" : team.password();
        try {
            Flyway.configure()
                    .dataSource(url, user, password)
                    .locations("classpath:dev/verbale/hub/tables")
                    .schemas(SCHEMA)
                    .load()
                    .migrate();
        } catch (FlywayException refused) {
            String name = team == null ? "in " + options.folder() : team.toString();
            throw new IOException("The hub's database " + name + " cannot be used: " + reason(refused), refused);
        }
        var config = new HikariConfig();
        config.setJdbcUrl(url);
        config.setUsername(user);
        config.setPassword(password);
        config.setSchema(SCHEMA);
        config.setPoolName("hub");
        config.setMaximumPoolSize(CONNECTIONS);
        config.setMinimumIdle(1);
        return new HubDatabase(new HikariDataSource(config));
    }

    /** What the driver message, where it is the cause. */
    private static String reason(Throwable refused) {
        Throwable cause = refused;
        while (cause.getCause() != null) cause = cause.getCause();
        String message = String.valueOf(cause.getMessage()).strip().replaceAll("\\s+", " ");
        return message.length() <= LONGEST_REASON ? message : message.substring(0, LONGEST_REASON) + "…";
    }

    private static String embedded(Path folder) {
        return "jdbc:h2:file:" + folder.resolve("database").toAbsolutePath()
                + ";MODE=PostgreSQL;DATABASE_TO_LOWER=TRUE;DEFAULT_NULL_ORDERING=HIGH;DB_CLOSE_ON_EXIT=FALSE;TRACE_LEVEL_FILE=0"
                + ";WRITE_DELAY=0" // or what was acknowledged half a second before a kill is lost
        ;
    }

    Jdbi jdbi() {
        return jdbi;
    }

    @Override
    public void close() {
        source.close();
    }
}
