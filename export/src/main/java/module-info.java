/** Writes runs as other tools read them. */
module dev.verbale.export {
    requires dev.verbale.har;
    requires transitive dev.verbale.history;
    requires transitive dev.verbale.rules;
    requires dev.verbale.secrets;
    requires java.desktop;
    requires java.xml;
    requires org.apache.commons.csv;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.export;
    exports dev.verbale.imports;
}
