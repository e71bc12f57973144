package dev.orto.browser;

import static org.assertj.core.api.Assertions.assertThat;

import dev.orto.pages.SeedsPage;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

@Tag("seeds")
@DisplayName("Seeds page")
class SeedsPageTest extends BrowserTest {

    private SeedsPage page;

    @BeforeEach
    void open_the_library() {
        page = new SeedsPage(driver, garden.address());
        page.open();
    }

    @Test
    @DisplayName("a neighbour borrows a sachet of basil")
    void borrowing() {
        page.borrow("Basil", "Elsa");

        assertThat(page.sachets("Basil")).isEqualTo(3);
        assertThat(page.lentTo("Basil")).isEqualTo("Elsa");
    }

    @Test
    void an_empty_shelf_says_so() {
        page.borrowInVain("Marigold", "Dario");

        assertThat(page.message()).isEqualTo("No sachet of Marigold is left");
    }

    @Test
    void a_nameless_borrower_is_asked_for_a_name() {
        page.borrowInVain("Borage", "");

        assertThat(page.message()).startsWith("Who borrows?");
    }
}
