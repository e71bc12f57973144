/** Remembers runs as small digests, and answers what happened over many of them. */
module dev.verbale.history {
    requires transitive dev.verbale.results;
    requires transitive java.desktop;
    requires hipparchus.core;
    requires hipparchus.stat;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.history;
    exports dev.verbale.history.digest;
    exports dev.verbale.history.compare;
}
