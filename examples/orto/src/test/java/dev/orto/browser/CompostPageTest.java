package dev.orto.browser;

import static org.assertj.core.api.Assertions.assertThat;

import dev.orto.pages.CompostPage;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("Compost page")
class CompostPageTest extends BrowserTest {

    @Test
    void the_curve_has_all_twelve_days() {
        var page = new CompostPage(driver, garden.address());
        page.open();

        assertThat(page.curve().split(" ")).hasSize(12).startsWith("30,72");
    }
}
