/** Brings the bytes of a run folder to a hub. */
module dev.verbale.sending {
    requires transitive dev.verbale.format;
    requires transitive java.net.http;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.sending;
}
