/** Writes the page of a run. */
module dev.verbale.report {
    requires transitive dev.verbale.history;
    requires transitive dev.verbale.rules;
    requires dev.verbale.har;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.report;
}
