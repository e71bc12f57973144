package dev.verbale.cli;

import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

/** A team's database. */
final class DatabaseOption {

    private static final String PASSWORD = "VERBALE_DATABASE_PASSWORD";

    @Option(
            names = "--database",
            required = true,
            paramLabel = "URL",
            description = {
                "A PostgreSQL, as jdbc:postgresql://host/name",
                "The password is taken from VERBALE_DATABASE_PASSWORD."
            })
    private String url = "";

    @Option(names = "--user", required = true, paramLabel = "NAME", description = "As whom to go to the database")
    String user = "";

    String url(CommandSpec spec) {
        if (!url.startsWith("jdbc:postgresql:"))
            throw new ParameterException(
                    spec.commandLine(),
                    "--database takes an address such as jdbc:postgresql://host/name, not '" + url + "'");
        return url;
    }

    /** Never on the command line: other users of the machine see that. */
    static String password() {
        @Nullable String set = System.getenv(PASSWORD);
        return set == null ? "" : set;
    }
}
