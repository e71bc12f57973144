package sample;

import dev.verbale.Verbale;
import org.testng.annotations.AfterClass;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Fixtures that break, each in a class of its own. */
public class BrokenSample {

    public static class InSetUp {
        @BeforeMethod
        public void opensTheGate() {
            Verbale.log("tries the key");
            throw new IllegalStateException("no key");
        }

        @Test
        public void plants() {}

        @Test
        public void waters() {}

        @AfterMethod(alwaysRun = true)
        public void shutsTheGate() {
            Verbale.log("shuts the gate");
        }
    }

    public static class InClass {
        @BeforeClass
        public void fetchesTools() {
            throw new IllegalStateException("no tools");
        }

        @Test
        public void digs() {}
    }

    public static class BeforeRows {
        @BeforeClass
        public void fetchesSeeds() {
            throw new IllegalStateException("no seeds");
        }

        @DataProvider
        public static Object[][] crops() {
            return new Object[][] {{"Kale"}, {"Basil"}};
        }

        @Test(dataProvider = "crops")
        public void sows(String crop) {}
    }

    public static class Twice {
        @BeforeClass
        public void fetchesTools() {
            throw new IllegalStateException("no tools");
        }

        @Test
        public void digs() {}

        @AfterClass(alwaysRun = true)
        public void bringsToolsBack() {
            throw new IllegalStateException("the shed is locked");
        }
    }

    public static class InTearDown {
        @Test
        public void cuts() {}

        @Test
        public void rakes() {}

        @AfterMethod
        public void cleans() {
            throw new IllegalStateException("no brush");
        }
    }
}
