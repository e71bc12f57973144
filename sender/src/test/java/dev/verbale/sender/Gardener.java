package dev.verbale.sender;

import dev.verbale.Verbale;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.spi.TestLifecycle;

/** Records a test, and one more for each line of its input, until that ends. */
final class Gardener {

    private Gardener() {}

    public static void main(String[] names) throws Exception {
        TestLifecycle tests = TestLifecycle.current();
        for (int i = 0; ; i++) {
            String name = names[0] + i;
            var test =
                    tests.startTest(tests.run(), TestDescriptor.of(name, name).build());
            Verbale.log("waters " + name);
            tests.endTest(test, name.startsWith("bad") ? TestEnd.threw(new AssertionError("weeds")) : TestEnd.passed());
            System.out.println("recorded " + name);
            if (System.in.read() < 0) break;
        }
        System.out.println("threads: "
                + Thread.getAllStackTraces().keySet().stream()
                        .map(Thread::getName)
                        .toList());
    }
}
