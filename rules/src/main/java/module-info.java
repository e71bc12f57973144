/** Labels failures and judges runs by the rules of a file. */
module dev.verbale.rules {
    requires transitive dev.verbale.history;
    requires org.snakeyaml.engine;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.rules;
    exports dev.verbale.rules.yaml;
}
