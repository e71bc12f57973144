/** Tells the recorder what TestNG runs. */
module dev.verbale.testng {
    requires transitive dev.verbale.recorder;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;
    // At run time whoever runs tests has it; the recorder must not drag a second version in.
    requires static transitive org.testng;

    exports dev.verbale.testng;

    provides dev.verbale.spi.Adapter with
            dev.verbale.testng.TestNGAdapter;
    provides dev.verbale.spi.ThrowableReader with
            dev.verbale.testng.TestNGReader;
    provides org.testng.ITestNGListener with
            dev.verbale.testng.VerbaleListener;
}
