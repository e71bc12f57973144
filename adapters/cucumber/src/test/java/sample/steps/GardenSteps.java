package sample.steps;

import dev.verbale.Evidence;
import dev.verbale.EvidenceSource;
import dev.verbale.MediaType;
import dev.verbale.Verbale;
import io.cucumber.java.After;
import io.cucumber.java.AfterStep;
import io.cucumber.java.Before;
import io.cucumber.java.PendingException;
import io.cucumber.java.Scenario;
import io.cucumber.java.en.Given;
import io.cucumber.java.en.Then;
import io.cucumber.java.en.When;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.opentest4j.TestAbortedException;

/** What the steps of the sample features do. */
public class GardenSteps {

    private boolean browserIsOpen;
    private Scenario scenario;

    @Before
    public void opens_a_browser(Scenario running) {
        scenario = running;
        browserIsOpen = true;
        Verbale.register(new EvidenceSource() {
            @Override
            public String name() {
                return "browser";
            }

            @Override
            public void capture(Evidence evidence) {
                byte[] seen = (browserIsOpen ? "the page" : "nothing").getBytes(StandardCharsets.UTF_8);
                evidence.attach("page", "page-source", seen, MediaType.TEXT);
            }
        });
    }

    @After
    public void closes_the_browser() {
        browserIsOpen = false;
    }

    @AfterStep("@smoke")
    public void looks_around() {}

    @Given("a garden with these beds")
    public void aGarden(List<Map<String, String>> beds) {
        Verbale.log("a garden with " + beds.size() + " beds");
    }

    @When("{word} swaps {word} with {word}")
    public void swaps(String who, String day, String with) {
        Verbale.step("Press Swap", () -> Verbale.log(who + " swaps " + day));
        scenario.log("swapped with " + with);
        scenario.attach("x,y".getBytes(StandardCharsets.UTF_8), "text/csv", "the rota");
    }

    @Then("{word} waters on {word}")
    public void waters(String who, String day) {}

    @When("nobody waters")
    public void nobodyWaters() {
        Verbale.step("Look at the beds", () -> {
            throw new AssertionError("all is dry");
        });
    }

    @When("{word} waters the {}")
    public void watersThe(String who, String crop) {
        Verbale.log(who + " waters " + crop + " on " + Thread.currentThread().getName());
    }

    @Then("the {} is green")
    public void isGreen(String crop) {
        if (crop.equals("Basil")) throw new IllegalStateException("the Basil is brown");
    }

    @When("it rains")
    public void itRains() {
        Verbale.log("it rains");
    }

    @When("the gate is locked")
    public void theGateIsLocked() {}

    @Given("a letter")
    public void aLetter(String text) {}

    @When("it snows")
    public void itSnows() {
        throw new PendingException("no snow yet");
    }

    @When("it freezes")
    public void itFreezes() {
        throw new TestAbortedException("nobody measures the cold");
    }
}
