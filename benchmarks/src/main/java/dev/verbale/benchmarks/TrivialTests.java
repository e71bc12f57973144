package dev.verbale.benchmarks;

import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.Test;

/** Tests that do nothing, so that all that they cost is around them. */
public class TrivialTests {

    /** One. */
    public static class One {
        @Test
        void nothing() {}
    }

    /** Ten thousand. */
    public static class TenThousand {
        @RepeatedTest(10_000)
        void nothing() {}
    }

    /** Forty thousand: to see whether a test costs more the more there are. */
    public static class FortyThousand {
        @RepeatedTest(40_000)
        void nothing() {}
    }
}
