package sample;

import org.junit.jupiter.api.Disabled;
import org.junit.jupiter.api.Test;

/** A class that is skipped as a whole: the platform tells of the class only. */
@Disabled("the pond is frozen")
public class DisabledSample {

    @Test
    void one() {}

    @Test
    void two() {}
}
