/** The command line. */
module dev.verbale.cli {
    requires static ch.qos.logback.classic; // only in the one jar
    requires static ch.qos.logback.core;
    requires dev.verbale.changes;
    requires dev.verbale.export;
    requires dev.verbale.har;
    requires dev.verbale.lake;
    requires static dev.verbale.hub; // no other command needs it, nor its libraries
    requires dev.verbale.messages;
    requires dev.verbale.otlp;
    requires dev.verbale.packing;
    requires static dev.verbale.publishing; // no other command needs it, nor its libraries
    requires dev.verbale.query;
    requires dev.verbale.report;
    requires dev.verbale.rules;
    requires dev.verbale.sending;
    requires dev.verbale.viewer;
    requires info.picocli;
    requires java.logging;
    requires static org.slf4j;
    requires static org.apiguardian.api;
    requires static org.jspecify;

    opens dev.verbale.cli to
            info.picocli;
}
