/**
 * Takes the minutes of a test run, in the tests' own JVM.
 *
 * @uses dev.verbale.recorder.ThrowableReader to read more out of a throwable than the JDK knows
 */
module dev.verbale.recorder {
    requires transitive dev.verbale.format;
    requires static transitive java.desktop; // only who keeps a picture in memory
    requires static transitive java.logging; // only who records it
    requires static transitive org.jspecify;

    exports dev.verbale;
    exports dev.verbale.evidence;
    exports dev.verbale.jul;
    exports dev.verbale.recorder;

    uses dev.verbale.recorder.ThrowableReader;
}
