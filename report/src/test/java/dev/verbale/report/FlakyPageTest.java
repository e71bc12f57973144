package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.results.SampleRun;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.Select;

/** A flaky test says why, wherever it stands; and the list is narrowed and ordered by what somebody looks for. */
class FlakyPageTest {

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
        sample.test("calm", Outcome.PASSED, null);
        for (String name : new String[] {"first", "other", "third"}) {
            String why = name.equals("other") ? "the gate stuck" : "the cache was cold";
            sample.test(name, Outcome.FAILED, SampleRun.failure("E", why), "0");
            sample.test(name, Outcome.PASSED, null, "12");
        }
        sample.test("red", Outcome.FAILED, SampleRun.failure("E", "no seeds"));
        index = Page.write(sample.read(), root.resolve("page"));
    }

    private static void click(String button) {
        chromium.driver
                .findElement(
                        By.xpath("//div[@class='filters']//button[starts-with(normalize-space(.), '" + button + "')]"))
                .click();
    }

    @Test
    void the_summary_names_why_flaky_tests_did_not_pass_at_first_the_most_frequent_reason_first() {
        chromium.open(index, "#/");

        assertThat(chromium.texts(".flaky li a")).containsExactly("first", "third", "other");
        assertThat(chromium.texts(".flaky .why"))
                .containsExactly("the cache was cold", "the cache was cold", "the gate stuck");
    }

    @Test
    void the_list_groups_flaky_tests_by_why_and_the_passing_attempt_leads_to_the_other() {
        chromium.open(index, "#/tests?flaky=flaky&group=reason");
        chromium.find(".row-line");

        assertThat(chromium.texts(".group-line h2")).containsExactly("the cache was cold", "the gate stuck");
        assertThat(chromium.texts(".row .under").get(0))
                .isEqualTo("Flaky: passed on attempt 2. The one before: the cache was cold");

        chromium.driver.findElements(By.cssSelector("a.row-line")).get(0).click();
        assertThat(chromium.text(".reason.why")).isEqualTo("The attempt before did not pass: the cache was cold");
        assertThat(chromium.text(".first-different")).isEqualTo("First different: data beds: 0, in attempt 2 12");
        chromium.find(".reason.why a").click();
        assertThat(chromium.text(".first-different")).contains("data beds: 0, in attempt 2 12");
        assertThat(chromium.text(".failure .message")).contains("the cache was cold");
    }

    @Test
    void what_is_asked_for_most_is_one_click_and_failures_come_first() {
        chromium.open(index, "#/tests");
        chromium.find(".row-line");

        click("failing");
        assertThat(chromium.texts(".row .name")).containsExactly("red");
        click("failing");
        click("flaky");
        assertThat(chromium.texts(".row .name")).containsExactly("first", "other", "third");
        click("flaky");
        WebElement order =
                chromium.driver.findElement(By.xpath("//label[starts-with(normalize-space(.), 'Order')]//select"));
        new Select(order).selectByVisibleText("failures first");

        assertThat(chromium.texts(".group-line"))
                .as("it orders all, and not each group")
                .isEmpty();
        assertThat(chromium.texts(".row .name").get(0)).isEqualTo("red");
        assertThat((String) chromium.script("return location.hash")).contains("order=failures+first", "group=nothing");
    }

    @Test
    void the_keys_for_search_and_for_the_next_failure_work_in_every_view() {
        for (String view : new String[] {"#/", "#/workers", "#/tests"}) {
            chromium.open(index, view);
            chromium.find(".row-line, .lanes, .columns");
            chromium.press("f");
            assertThat(chromium.text(".test h1")).as(view).isEqualTo("red");
        }
        chromium.open(index, "#/workers");
        chromium.find(".lanes");
        chromium.press("/");
        chromium.find(".row-line");
        chromium.waitFor("return document.activeElement.type === 'search'");
        chromium.driver().switchTo().activeElement().sendKeys("oth");

        assertThat(chromium.texts(".row .name")).containsExactly("other");
    }

    @Test
    void what_an_outcome_means_that_is_not_met_every_day_is_said_where_it_stands() throws Exception {
        SampleRun sample = SampleRun.in(root, "odd");
        sample.test("e", Outcome.ERRORED, SampleRun.failure("E", "x"));
        sample.test("a", Outcome.ABORTED, null);
        chromium.open(Page.write(sample.read(), root.resolve("odd-page")), "#/");

        assertThat(chromium.text(".meanings"))
                .contains("errored: something broke", "aborted: the test gave up")
                .doesNotContain("unfinished");
    }
}
