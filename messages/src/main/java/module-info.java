/** Says what a run came to by mail, and to whatever takes JSON. */
module dev.verbale.messages {
    requires com.samskivert.jmustache;
    requires transitive dev.verbale.export;
    requires jakarta.mail;
    requires java.net.http;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.messages;
}
