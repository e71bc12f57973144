package sample;

import dev.verbale.Verbale;
import org.testng.ITest;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Factory;
import org.testng.annotations.Test;

/** Objects that a factory makes, on as many threads as there are; each thread's lines have to stay with its test. */
public class FactorySample {

    private final String bed;

    @Factory(dataProvider = "beds")
    public FactorySample(String bed) {
        this.bed = bed;
    }

    @DataProvider
    public static Object[][] beds() {
        return new Object[][] {{"north"}, {"south"}, {"east"}};
    }

    @Test
    public void waters() {
        for (int i = 0; i < 20; i++) Verbale.step("Water " + bed, () -> Verbale.log("waters " + bed));
    }

    @Test
    public void weeds() {
        for (int i = 0; i < 20; i++) Verbale.step("Weed " + bed, () -> Verbale.log("weeds " + bed));
    }

    @AfterMethod
    public void rests() {
        Verbale.log("rests at " + bed);
    }

    /** Its object says what its tests are called. */
    public static class Named implements ITest {
        @Override
        public String getTestName() {
            return "the herb bed";
        }

        @Test
        public void smells() {}
    }

    /** One factory makes them all at once. */
    public static class AtOnce {
        private final String bed;

        AtOnce(String bed) {
            this.bed = bed;
        }

        @Test
        public void drains() {
            Verbale.log("drains " + bed);
            if (bed.equals("south")) throw new AssertionError("the south bed is wet");
        }
    }

    /** Makes objects of another class. */
    public static class MakesAtOnce {
        @Factory
        public Object[] beds() {
            return new Object[] {new AtOnce("north"), new AtOnce("south"), new AtOnce("east")};
        }
    }

    /** Makes two of each row. */
    public static class MakesPairs {
        @Factory(dataProvider = "rows")
        public Object[] beds(String row) {
            return new Object[] {new AtOnce(row), new AtOnce("south")};
        }

        @DataProvider
        public static Object[][] rows() {
            return new Object[][] {{"north"}, {"east"}};
        }
    }
}
