/** Writes exchanges as HTTP archives, and reads such files of anyone. */
module dev.verbale.har {
    requires transitive dev.verbale.results;
    requires tools.jackson.databind;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.har;
}
