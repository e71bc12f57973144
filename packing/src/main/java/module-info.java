/** Makes one file of a run, reads it as it is, and seals what a run's files were. */
module dev.verbale.packing {
    requires transitive dev.verbale.results;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.packing;
    exports dev.verbale.sealing;
}
