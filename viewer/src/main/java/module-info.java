/** A small server on one machine that shows a folder of runs. */
module dev.verbale.viewer {
    requires transitive dev.verbale.report;
    requires jdk.httpserver;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.viewer;
}
