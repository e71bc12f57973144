package sample;

import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Disabled;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Methods whose tests are known only when they run, in classes that never run. */
public class SkippedTemplatesSample {

    @Disabled("the pond is frozen")
    public static class Skipped {
        @ParameterizedTest
        @ValueSource(ints = {1, 2})
        void rows(int row) {}

        @TestFactory
        Stream<DynamicTest> made() {
            return Stream.of();
        }

        @Test
        void plain() {}
    }

    public static class Broken {
        @BeforeAll
        static void breaks() {
            throw new IllegalStateException("no glass");
        }

        @RepeatedTest(3)
        void again() {}

        @Test
        void plain() {}
    }

    public static class BrokenAfterwards {
        @org.junit.jupiter.api.AfterAll
        static void breaks() {
            throw new IllegalStateException("no glass");
        }

        @RepeatedTest(3)
        void again() {}

        @Test
        void plain() {}
    }
}
