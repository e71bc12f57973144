package dev.orto.browser;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.orto.pages.RotaPage;
import dev.verbale.About;
import dev.verbale.MediaType;
import dev.verbale.Verbale;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

@Tag("rota")
@About(value = "Neighbours plan the week's watering without calling each other", owner = "Chiara", links = "GARDEN-12")
@DisplayName("Rota page")
class RotaPageTest extends BrowserTest {

    private RotaPage page;

    @BeforeEach
    void open_the_rota() {
        page = new RotaPage(driver, garden.address());
        page.open();
    }

    @Test
    @About(severity = "the beans dry out")
    void swapping_two_days_swaps_their_neighbours() {
        Verbale.attach("rota-before.csv", page.asCsv(), MediaType.CSV);
        Verbale.log("Monday waters {}, Thursday waters {}", page.neighbourOn("Monday"), page.neighbourOn("Thursday"));

        page.swap("Monday", "Thursday");

        Verbale.step("Compare with the rota of before", () -> {
            assertEquals("Dario", page.neighbourOn("Monday"), "Monday after the swap");
            assertEquals("Ada", page.neighbourOn("Thursday"), "Thursday after the swap");
        });
    }

    @Test
    void a_day_with_itself_is_refused() {
        page.swapInVain("Sunday", "Sunday");

        assertEquals("A day cannot be swapped with itself: Sunday", page.message());
    }

    @Test
    void the_weekend_is_covered() {
        assertEquals("Ada", page.neighbourOn("Saturday"));
        assertEquals("Bruno", page.neighbourOn("Sunday"));
    }
}
