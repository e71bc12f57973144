package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.results.SampleRun;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;

/** The list of tests: rows that somebody selects, and columns that somebody chooses. */
class ListPageTest {

    private static Chromium chromium;

    @TempDir
    Path root;

    private Path index;

    @BeforeAll
    static void open_the_browser() {
        chromium = new Chromium();
    }

    @AfterAll
    static void close_the_browser() {
        chromium.close();
    }

    @BeforeEach
    void write() throws Exception {
        SampleRun sample = SampleRun.in(root, "run");
        for (String name : List.of("a", "b", "c", "d")) sample.test(name, Outcome.PASSED, null);
        index = Page.write(sample.read(), root.resolve("page"));
        chromium.open(index, "#/tests?group=nothing");
        chromium.find(".row-line");
        chromium.script(
                "window.copied = []; navigator.clipboard.writeText = t => { copied.push(t); return Promise.resolve() }");
    }

    private static WebElement box(String test) {
        return chromium.find("input[aria-label='Select " + test + "']");
    }

    private static Object copied(String what) {
        chromium.driver
                .findElement(By.xpath("//span[contains(@class,'copying')]//button[.='" + what + "']"))
                .click();
        return chromium.script("return copied.at(-1)");
    }

    @Test
    void what_is_selected_is_copied_and_nothing_else() {
        assertThat(copied("ids")).asString().hasLineCount(4);

        box("b").sendKeys(Keys.SPACE);
        new Actions(chromium.driver)
                .keyDown(Keys.SHIFT)
                .click(box("d"))
                .keyUp(Keys.SHIFT)
                .perform();

        assertThat(chromium.text(".copying [role=status]")).isEqualTo("3 selected");
        assertThat(copied("ids")).isEqualTo("sample.b()\nsample.c()\nsample.d()");
        box("c").click();
        assertThat(copied("CSV"))
                .asString()
                .contains("sample.b()", "sample.d()")
                .doesNotContain("sample.c()");
        chromium.driver.findElement(By.xpath("//button[.='clear']")).click();
        assertThat(copied("ids")).asString().hasLineCount(4);
    }

    @Test
    void columns_are_chosen_and_stay_in_the_address() {
        assertThat(chromium.driver.findElements(By.cssSelector(".cell"))).isEmpty();

        chromium.find(".choose-columns summary").click();
        for (WebElement column : chromium.driver.findElements(By.cssSelector(".choose-columns label")))
            if (List.of("class", "id").contains(column.getText().strip())) column.click();

        assertThat(chromium.texts(".row:first-child .cell")).containsExactly("sample.T", "sample.a()");
        assertThat((String) chromium.script("return location.hash")).contains("columns=tag%2Cclass%2Cid");
        chromium.open(index, "#/tests?group=nothing&columns=none");
        chromium.find(".row-line");
        assertThat(chromium.driver.findElements(By.cssSelector(".cell, .row .tags")))
                .isEmpty();
    }
}
