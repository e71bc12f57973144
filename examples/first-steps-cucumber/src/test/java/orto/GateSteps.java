package orto;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.verbale.Verbale;
import io.cucumber.java.en.Given;
import io.cucumber.java.en.Then;
import io.cucumber.java.en.When;
import java.util.Map;

public class GateSteps {

    private String season;
    private Map<String, String> dusk = Map.of();

    @Given("the timetable")
    public void theTimetable(Map<String, String> timetable) {
        dusk = timetable;
    }

    @When("it is {word}")
    public void itIs(String now) {
        season = now;
    }

    @Then("the gate opens at {int}")
    public void opensAt(int hour) {
        int opens = Verbale.step("Ask the gate", () -> season.equals("summer") ? 7 : 8);
        assertEquals(hour, opens);
    }

    @Then("the gate closes at {word}")
    public void closesAt(String hour) {
        assertEquals(hour, Verbale.step("Look at the timetable", () -> dusk.get(season)));
    }
}
