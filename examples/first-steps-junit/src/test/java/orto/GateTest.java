package orto;

import dev.verbale.MediaType;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.verbale.Verbale;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GateTest {

    private String season;

    @BeforeEach
    void asks_for_the_season() {
        season = "summer";
        Verbale.log("it is {}", season);
    }

    @ParameterizedTest
    @CsvSource({"summer, 7", "winter, 8"})
    void opens(String when, int hour) {
        int opens = Verbale.step("Ask the gate", () -> when.equals("summer") ? 7 : 8);
        assertEquals(hour, opens);
    }

    @Test
    void closes_at_dusk() {
        Verbale.attach("timetable.csv", "season,dusk\nsummer,21\nwinter,17\n", MediaType.CSV);
        assertEquals("17", Verbale.step("Look at the clock", () -> "21"), "in " + season);
    }
}
