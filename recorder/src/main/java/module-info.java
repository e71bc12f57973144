/**
 * Records a test run, in the tests' own JVM.
 *
 * @uses dev.verbale.spi.Adapter to know what the adapters bring that are there
 * @uses dev.verbale.spi.RunListener to let others know when a run begins and ends
 * @uses dev.verbale.spi.ThrowableReader to read more out of a throwable than the JDK knows
 */
module dev.verbale.recorder {
    requires transitive dev.verbale.format;
    requires dev.verbale.secrets;
    requires static transitive java.desktop; // only who attaches an image in memory
    requires static transitive java.logging; // only who records it
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;
    requires static org.opentest4j; // only whose tests throw its types

    exports dev.verbale;
    exports dev.verbale.jul;
    exports dev.verbale.spi;

    uses dev.verbale.spi.Adapter;
    uses dev.verbale.spi.RunListener;
    uses dev.verbale.spi.ThrowableReader;
}
