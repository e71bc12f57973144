package sample;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;
import static org.junit.jupiter.api.Assertions.fail;

import dev.verbale.About;
import dev.verbale.ExpectedFailure;
import dev.verbale.Verbale;
import dev.verbale.evidence.Evidence;
import dev.verbale.evidence.EvidenceSource;
import java.time.Duration;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

/** What annotations and checks say. */
@About(value = "The gate", owner = "Ada", links = "GARDEN-1")
public class AnnouncedSample {

    @Test
    @About(severity = "grave", links = "https://orto.example/gate")
    void described() {}

    @Test
    @ExpectedFailure(value = "the hinge is rusty", link = "GARDEN-17")
    void failsAsAnnounced() {
        Verbale.announce(new EvidenceSource() {
            @Override
            public String name() {
                return "camera";
            }

            @Override
            public void take(Evidence evidence) {
                evidence.note("a picture");
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
        Verbale.note("went on");
    }

    @Test
    void keepsItsStepsInATimeout() {
        Verbale.step("Wait", () -> assertTimeoutPreemptively(Duration.ofSeconds(20), () -> Verbale.note("inside")));
    }

    @Nested
    @About("The inner gate")
    class Inner {
        @Test
        void described() {}
    }
}
