package orto;

import dev.verbale.results.RunReader;
import java.nio.file.Path;

/** Says what the newest run below a folder came to. */
public final class Failures {
    public static void main(String[] arguments) throws Exception {
        var run = RunReader.read(Path.of(arguments[0]));
        System.out.println(run.name() + ": " + run.counts().all() + " tests");
        for (var test : run.needingAttention())
            System.out.println(test.outcome() + " " + test.key() + " after " + test.duration().toMillis() + " ms");
    }
}
