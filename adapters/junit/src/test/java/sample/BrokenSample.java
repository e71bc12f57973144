package sample;

import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** A class whose set-up fails: its tests never start. */
public class BrokenSample {

    @BeforeAll
    static void open_the_greenhouse() {
        throw new IllegalStateException("no glass");
    }

    @Test
    void one() {}

    @Test
    void two() {}
}
