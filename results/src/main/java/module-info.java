/** Reads run folders into a run model, and works out what it means. Never needs the recorder. */
module dev.verbale.results {
    requires transitive dev.verbale.format;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.results;
}
