package sample;

import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;

/** The platform gives up at once where memory is at its end, and tells no listener. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
public class OutOfMemorySample {

    @Test
    @Order(1)
    void fills() {
        throw new OutOfMemoryError("Java heap space");
    }

    @Test
    @Order(2)
    void neverRuns() {}
}
