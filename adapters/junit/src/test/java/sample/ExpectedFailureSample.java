package sample;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;
import static org.junit.jupiter.api.Assertions.fail;

import dev.verbale.About;
import dev.verbale.Evidence;
import dev.verbale.EvidenceSource;
import dev.verbale.ExpectedFailure;
import dev.verbale.Verbale;
import java.time.Duration;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

/** What annotations and checks say. */
@About(value = "The gate", owner = "Ada", links = "GARDEN-1")
public class ExpectedFailureSample {

    @Test
    @About(severity = "grave", links = "https://orto.example/gate")
    void described() {}

    @Test
    @ExpectedFailure(value = "the hinge is rusty", link = "GARDEN-17")
    void failsAsExpected() {
        Verbale.register(new EvidenceSource() {
            @Override
            public String name() {
                return "camera";
            }

            @Override
            public void capture(Evidence evidence) {
                evidence.log("a screenshot");
            }
        });
        fail("it squeaks");
    }

    @Test
    @ExpectedFailure("was rusty once")
    void passesAllTheSame() {}

    @Test
    void checksGoOn() {
        Verbale.check("hinge", () -> assertEquals("oiled", "rusty"));
        Verbale.check("lock", () -> {});
        Verbale.check("paint", () -> fail("peels"));
        Verbale.log("went on");
    }

    @Test
    void keepsItsStepsInATimeout() {
        Verbale.step("Wait", () -> assertTimeoutPreemptively(Duration.ofSeconds(20), () -> Verbale.log("inside")));
    }

    @Nested
    @About("The inner gate")
    class Inner {
        @Test
        void described() {}
    }
}
