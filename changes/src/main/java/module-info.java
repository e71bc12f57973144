/** Finds the tests that a change can affect. */
module dev.verbale.changes {
    requires transitive dev.verbale.results;
    requires io.github.classgraph;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.changes;
}
