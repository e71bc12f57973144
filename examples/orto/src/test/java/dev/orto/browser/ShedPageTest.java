package dev.orto.browser;

import static org.assertj.core.api.Assertions.assertThat;

import dev.orto.pages.ShedPage;
import dev.verbale.About;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("Shed page")
class ShedPageTest extends BrowserTest {

    @Test
    @About(value = "The box opens for who knows its code", owner = "Bruno")
    void elsa_takes_the_key() {
        var page = new ShedPage(driver, garden.address());
        page.open();

        page.takeTheKey("Elsa", "kohlrabi-1897");

        page.waitFor("The key is with Elsa.");
    }

    @Test
    void a_wrong_code_opens_nothing() {
        var page = new ShedPage(driver, garden.address());
        page.open();

        page.takeTheKey("Dario", "carrot-1");

        assertThat(page.message()).isEqualTo("This code does not open the box");
    }
}
