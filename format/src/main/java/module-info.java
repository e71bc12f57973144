/** The language that recording and reading share: events, journal files, the run folder. It knows nobody else. */
@SuppressWarnings("module") // whom it exports a package to is built later
module dev.verbale.format {
    requires transitive tools.jackson.core;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.ci;
    exports dev.verbale.event;
    exports dev.verbale.folder;
    exports dev.verbale.journal;
    exports dev.verbale.json;
    exports dev.verbale.vocabulary;
    exports dev.verbale.stack to
            dev.verbale.recorder;
}
