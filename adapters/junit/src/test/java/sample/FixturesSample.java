package sample;

import dev.verbale.Evidence;
import dev.verbale.EvidenceSource;
import dev.verbale.Verbale;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;
import org.junit.jupiter.api.Timeout;

/** Fixtures around tests, and a gate that is closed in teardown: evidence that comes later finds it shut. */
public class FixturesSample {

    private boolean gateIsOpen;

    @BeforeAll
    static void unlock_the_garden() {
        Verbale.log("unlocked");
    }

    @BeforeEach
    void open_the_gate(TestInfo info) {
        gateIsOpen = true;
        Verbale.register(new EvidenceSource() {
            @Override
            public String name() {
                return "gate";
            }

            @Override
            public void capture(Evidence evidence) {
                evidence.log(gateIsOpen ? "the gate is open" : "the gate is shut");
            }
        });
        if (info.getDisplayName().startsWith("neverStarts")) throw new IllegalStateException("the hinge is broken");
    }

    @AfterEach
    void shut_the_gate() {
        gateIsOpen = false;
    }

    @AfterAll
    static void lock_the_garden() {
        Verbale.log("locked");
    }

    @Test
    void passes() {}

    @Test
    void fails() {
        throw new AssertionError("weeds");
    }

    @Test
    void neverStarts() {}

    @Test
    @Timeout(value = 30, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
    void runsOnAnotherThread() {
        Verbale.step("Elsewhere", () -> Verbale.log("on " + (gateIsOpen ? "time" : "no time")));
    }
}
