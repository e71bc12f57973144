/** The command line. */
module dev.verbale.cli {
    requires dev.verbale.har;
    requires dev.verbale.report;
    requires info.picocli;
    requires static org.apiguardian.api;
    requires static org.jspecify;

    opens dev.verbale.cli to
            info.picocli;
}
