package dev.verbale.pagewriter;

import dev.verbale.Verbale;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.spi.TestLifecycle;
import dev.verbale.testing.Launched;

/** Records one test, and waits for a line on its input before it ends. */
final class Forks {

    private Forks() {}

    public static void main(String[] arguments) throws Exception {
        TestLifecycle tests = TestLifecycle.current();
        var test = tests.startTest(
                tests.run(), TestDescriptor.of("k" + arguments[0], "waters").build());
        Verbale.log("waters");
        tests.endTest(test, arguments[1].equals("fails") ? TestEnd.threw(new AssertionError("dry")) : TestEnd.passed());
        System.out.println(Launched.COUNTS + "0 0 0");
        if (arguments.length > 2) System.in.read();
    }
}
