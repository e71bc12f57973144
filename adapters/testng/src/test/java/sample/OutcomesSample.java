package sample;

import static org.testng.Assert.assertEquals;

import dev.verbale.About;
import dev.verbale.ExpectedFailure;
import dev.verbale.Verbale;
import java.io.IOException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.IRetryAnalyzer;
import org.testng.ITestResult;
import org.testng.Reporter;
import org.testng.SkipException;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import org.testng.asserts.SoftAssert;

/** One test of each kind. */
public class OutcomesSample {

    private static final AtomicInteger DRAWN = new AtomicInteger();

    @Test(
            groups = {"garden", "bean"},
            description = "A bean grows in a week")
    public void passes() {
        Reporter.log("three leaves");
        Verbale.log("four leaves");
    }

    @Test
    public void fails() {
        assertEquals("Dario", "Ada", "who waters");
    }

    @Test
    public void assertsSoftly() {
        var softly = new SoftAssert();
        softly.assertEquals("north", "south", "the bed");
        softly.assertEquals(1, 1, "the rows");
        softly.assertEquals("Kale", "Basil", "the crop");
        softly.assertAll();
    }

    @Test
    public void breaks() throws IOException {
        throw new IOException("no water", new IllegalStateException("the shed is locked"));
    }

    @Test
    public void givesUp() {
        Verbale.step("Look at the sky", () -> {
            throw new SkipException("needs rain");
        });
    }

    @Test(enabled = false)
    public void isSwitchedOff() {}

    @Test(dependsOnMethods = "fails")
    public void followsAFailure() {}

    @Test(dependsOnMethods = "followsAFailure")
    public void followsASkip() {}

    @Test(dependsOnGroups = "bean")
    public void followsAGroup() {}

    @Test(expectedExceptions = IllegalStateException.class)
    public void throwsAsExpected() {
        throw new IllegalStateException("as expected");
    }

    @Test(timeOut = 300)
    public void hangs() throws InterruptedException {
        Verbale.log("waits for rain");
        new CountDownLatch(1).await();
    }

    @Test(timeOut = 60_000)
    public void isInTime() {
        Verbale.step("Water", () -> Verbale.log("on " + Thread.currentThread().getName()));
    }

    @Test
    @About(owner = "Ada")
    @ExpectedFailure(value = "the pump is broken", link = "GARDEN-17")
    public void isKnownToFail() {
        throw new IllegalStateException("no pump");
    }

    @Test
    @ExpectedFailure("it was mended")
    public void isWronglyExpectedToFail() {}

    @Test(invocationCount = 4, successPercentage = 50)
    public void mayFail() {
        if (DRAWN.incrementAndGet() % 2 == 0) throw new AssertionError("a blank");
    }

    @Test(invocationCount = 4, threadPoolSize = 2)
    public void drawsInAPool() {
        Verbale.log("draws on " + Thread.currentThread().getName());
    }

    @DataProvider
    public static Object[][] crops() {
        return new Object[][] {{"Basil", 2}, {"Kale", 3}, {"Mint", 4}};
    }

    @DataProvider(parallel = true)
    public static Object[][] manyCrops() {
        var crops = new Object[40][];
        for (int i = 0; i < crops.length; i++) crops[i] = new Object[] {"crop " + i, i};
        return crops;
    }

    @Test(dataProvider = "crops")
    public void grows(String crop, int plot) {
        if (crop.equals("Kale")) throw new AssertionError("eaten by snails");
    }

    @Test(dataProvider = "manyCrops")
    public void growsInParallel(String crop, int plot) {
        Verbale.step("Plant", () -> Verbale.log("plants " + crop));
    }

    @DataProvider
    public static Object[][] brokenCrops() {
        throw new IllegalStateException("the seed box is empty");
    }

    @Test(dataProvider = "brokenCrops")
    public void hasNoData(String crop) {}

    /** Once more. */
    public static class Once implements IRetryAnalyzer {
        private int tries;

        @Override
        public boolean retry(ITestResult result) {
            return tries++ < 1;
        }
    }

    private static final AtomicInteger TRIES = new AtomicInteger();

    @Test(retryAnalyzer = Once.class)
    public void flickers() {
        if (TRIES.incrementAndGet() == 1) throw new AssertionError("not yet");
    }

    @Test(retryAnalyzer = Once.class, dataProvider = "crops")
    public void failsAgain(String crop, int plot) {
        if (plot == 3) throw new AssertionError("no " + crop);
    }

    @Test
    public void gathersChecks() {
        Verbale.check("The gate is shut", () -> {
            throw new AssertionError("it is open");
        });
        Verbale.log("goes on");
    }
}
