/** Finds secrets in texts and masks them. Pure computation, for the recorder and for what is imported; it knows nobody. */
@SuppressWarnings("module") // whom it exports a package to is built later
module dev.verbale.secrets {
    requires static transitive org.jspecify;
    requires static org.apiguardian.api;

    exports dev.verbale.secrets to
            dev.verbale.export,
            dev.verbale.recorder;
}
