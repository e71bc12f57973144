package sample;

import dev.verbale.Verbale;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;

/** Tests that really run at once: the first of them wait for each other with their steps open. */
@Execution(ExecutionMode.CONCURRENT)
public class ParallelSample {

    private static final int AT_ONCE = 8;
    private static final CountDownLatch TOGETHER = new CountDownLatch(AT_ONCE);

    @RepeatedTest(80)
    void interleaves(RepetitionInfo repetition) throws Exception {
        String mine = "mine is " + repetition.getCurrentRepetition();
        Verbale.step(mine, () -> {
            TOGETHER.countDown();
            TOGETHER.await(10, TimeUnit.SECONDS);
            for (int i = 0; i < 5; i++) Verbale.step(mine, () -> Verbale.log(mine));
        });
        if (repetition.getCurrentRepetition() % 10 == 0) throw new AssertionError(mine);
    }
}
