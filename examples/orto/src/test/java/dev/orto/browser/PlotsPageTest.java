package dev.orto.browser;

import static org.assertj.core.api.Assertions.assertThat;

import dev.orto.pages.PlotsPage;
import dev.verbale.video.VisualCheck;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("Plots page")
class PlotsPageTest extends BrowserTest {

    private static final Path IMAGES = Path.of(System.getProperty("orto.images", "src/test/images"));

    private PlotsPage page;

    @BeforeEach
    void open_the_page() {
        page = new PlotsPage(driver, garden.address());
        page.open();
    }

    @Test
    @Tag("smoke")
    void shows_what_grows() {
        assertThat(page.crops()).hasSize(6).contains("Tomatoes", "Herbs");
    }

    @Test
    void the_plan_looks_as_it_did() {
        VisualCheck.that("plan of the plots", page.plan(), IMAGES.resolve("plan.png"))
                .holds();
    }

    @Test
    void names_the_keeper_of_a_plot() {
        assertThat(page.keeperOf(7)).isEqualTo("kept by Elsa");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({"Rota, Watering rota", "Seeds, Seed library", "Compost, Compost", "Shed, Tool shed"})
    void the_menu_leads_to(String entry, String heading) {
        page.follow(entry);

        assertThat(page.heading()).isEqualTo(heading);
    }
}
