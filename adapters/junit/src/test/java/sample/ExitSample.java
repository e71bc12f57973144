package sample;

import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/** Ends the JVM when its only test is over: another class never runs. */
public class ExitSample {

    @Test
    void passes() {}

    @AfterAll
    static void ends_the_jvm() {
        System.out.println("platform counts: 1 1 0 0 0");
        System.exit(0);
    }
}
