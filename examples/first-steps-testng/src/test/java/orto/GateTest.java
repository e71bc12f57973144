package orto;

import dev.verbale.MediaType;
import static org.testng.Assert.assertEquals;

import dev.verbale.Verbale;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class GateTest {

    private String season;

    @BeforeMethod
    public void asks_for_the_season() {
        season = "summer";
        Verbale.log("it is {}", season);
    }

    @DataProvider
    public static Object[][] hours() {
        return new Object[][] {{"summer", 7}, {"winter", 8}};
    }

    @Test(dataProvider = "hours", groups = "gate")
    public void opens(String when, int hour) {
        int opens = Verbale.step("Ask the gate", () -> when.equals("summer") ? 7 : 8);
        assertEquals(opens, hour);
    }

    @Test(groups = "gate")
    public void closesAtDusk() {
        Verbale.attach("timetable.csv", "season,dusk\nsummer,21\nwinter,17\n", MediaType.CSV);
        assertEquals(Verbale.step("Look at the clock", () -> "21"), "17", "in " + season);
    }

    @Test(dependsOnMethods = "closesAtDusk")
    public void isLockedAtNight() {}
}
