/** Reads run folders into a run model, and works out what it means. Never needs the recorder. */
module dev.verbale.results {
    requires transitive dev.verbale.format;
    requires org.jsoup;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.results;
    exports dev.verbale.results.brief;
    exports dev.verbale.results.element;
    exports dev.verbale.results.join;
    exports dev.verbale.results.progress;
    exports dev.verbale.results.reason;
    exports dev.verbale.results.selection;
    exports dev.verbale.results.summary;
    exports dev.verbale.results.source;
    exports dev.verbale.results.sweep;
}
