/** Tells the recorder what the JUnit Platform runs. */
module dev.verbale.junit {
    requires transitive dev.verbale.recorder;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;
    // At run time whoever runs tests has them; the recorder must not drag a second version in.
    requires static transitive org.junit.jupiter.api;
    requires static transitive org.junit.platform.launcher;

    exports dev.verbale.junit;

    provides dev.verbale.spi.Adapter with
            dev.verbale.junit.JUnitAdapter;
    provides org.junit.jupiter.api.extension.Extension with
            dev.verbale.junit.VerbaleExtension;
    provides org.junit.platform.launcher.LauncherSessionListener with
            dev.verbale.junit.VerbaleSessionListener;
    provides org.junit.platform.launcher.TestExecutionListener with
            dev.verbale.junit.VerbaleExecutionListener;
}
