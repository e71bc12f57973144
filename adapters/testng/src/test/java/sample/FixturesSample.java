package sample;

import dev.verbale.Evidence;
import dev.verbale.EvidenceSource;
import dev.verbale.MediaType;
import dev.verbale.Verbale;
import java.lang.reflect.Method;
import java.nio.charset.StandardCharsets;
import org.testng.annotations.AfterClass;
import org.testng.annotations.AfterGroups;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.AfterSuite;
import org.testng.annotations.AfterTest;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeGroups;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.BeforeSuite;
import org.testng.annotations.BeforeTest;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Every kind of fixture; the browser of a test is open from its set-up to its tear-down. */
public class FixturesSample {

    private static boolean browserIsOpen;

    @BeforeSuite
    public void opensTheGarden() {
        Verbale.log("opens the garden");
    }

    @BeforeTest
    public void unlocksTheGate() {
        Verbale.log("unlocks the gate");
    }

    @BeforeClass
    public void fetchesTools() {
        Verbale.log("fetches tools");
    }

    @BeforeGroups("group")
    public void gathersTheGroup() {
        Verbale.log("gathers the group");
    }

    @BeforeMethod
    public void opens_a_browser(Method test) {
        Verbale.log("opens a browser for " + test.getName());
        browserIsOpen = true;
        Verbale.register(new Browser());
    }

    /** Sees a page as long as it is open. */
    private static final class Browser implements EvidenceSource {
        @Override
        public String name() {
            return "browser";
        }

        @Override
        public void capture(Evidence evidence) {
            String seen = browserIsOpen ? "the page" : "nothing";
            evidence.attach("page", "page-source", seen.getBytes(StandardCharsets.UTF_8), MediaType.TEXT);
        }
    }

    @DataProvider
    public static Object[][] crops() {
        return new Object[][] {{"Basil"}, {"Kale"}};
    }

    @Test(dataProvider = "crops", groups = "group")
    public void plants(String crop) {
        Verbale.log("plants " + crop);
    }

    @Test(groups = "group")
    public void loses() {
        Verbale.step("Look", () -> {
            throw new AssertionError("nothing grows");
        });
    }

    @AfterMethod
    public void closes_the_browser() {
        browserIsOpen = false;
        Verbale.log("closes the browser");
    }

    @AfterGroups("group")
    public void sendsTheGroupHome() {
        Verbale.log("sends the group home");
    }

    @AfterClass
    public void bringsToolsBack() {
        Verbale.log("brings tools back");
    }

    @AfterTest
    public void locksTheGate() {
        Verbale.log("locks the gate");
    }

    @AfterSuite
    public void closesTheGarden() {
        Verbale.log("closes the garden");
    }
}
