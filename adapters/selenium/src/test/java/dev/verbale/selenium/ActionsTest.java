package dev.verbale.selenium;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.results.Entry;
import dev.verbale.spi.TestEnd;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Cookie;
import org.openqa.selenium.ElementNotInteractableException;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.support.ui.ExpectedConditions;
import org.openqa.selenium.support.ui.Select;
import org.openqa.selenium.support.ui.WebDriverWait;

/** What is done to a browser, in words. */
class ActionsTest extends Recorded {

    private final WebDriver driver = VerbaleSelenium.watch(chromium);

    @Test
    void clicks_typing_and_choices_are_told_by_the_names_that_people_see() throws Exception {
        String address = garden.page("/swap", """
                <form onsubmit="return false"><label>Neighbour's name <input name=who></label>
                <label for=d>First day</label><select id=d name=day><option>Monday<option>Friday</select>
                <button aria-label="Swap the days" id=swap><b>&#8644;</b></button><a href="#x">Rota</a>
                <input type=submit value=Send><input id=hid style="display:none"></form>""");
        driver.get(address);
        driver.findElement(By.name("who")).sendKeys("Ada", Keys.TAB);
        driver.findElement(By.name("who")).clear();
        new Select(driver.findElement(By.id("d"))).selectByVisibleText("Friday");
        driver.findElement(By.id("swap")).click();
        driver.findElement(By.linkText("Rota")).click();
        driver.findElement(By.cssSelector("[type=submit]")).click();
        driver.findElement(NamedLocator.of("The hidden field", By.id("hid"))).isDisplayed();
        assertThatThrownBy(() -> driver.findElement(NamedLocator.of("The hidden field", By.id("hid")))
                        .click())
                .isInstanceOf(ElementNotInteractableException.class);
        driver.navigate().back();
        driver.navigate().refresh();
        driver.manage().addCookie(new Cookie("bed", "7"));

        assertThat(steps(end(TestEnd.passed())))
                .containsExactly(
                        "open " + address,
                        "type 'Ada' and press Tab into *Neighbour's name* [name=who]",
                        "clear *Neighbour's name* [name=who]",
                        "choose 'Friday' in *First day*",
                        "click *Swap the days* [#swap]",
                        "click *Rota* [link Rota]",
                        "click *Send* [[type=submit]]",
                        "click *The hidden field* [#hid]: errored",
                        "go back",
                        "load the page again",
                        "set cookie bed");
    }

    @Test
    void typed_secrets_are_masked_here_and_wherever_they_turn_up() throws Exception {
        driver.get(garden.page(
                "/gate", "<label>Code <input type=password name=a></label><label>Gate token <input name=b></label>"));
        driver.findElement(By.name("a")).sendKeys("beetroot-42");
        driver.findElement(By.name("b")).sendKeys("kohlrabi-43", Keys.ENTER);
        recorder.log("they typed beetroot-42 and kohlrabi-43");
        List<Entry> entries = end(TestEnd.threw(new AssertionError("shut")));

        assertThat(steps(entries))
                .contains(
                        "type [masked] into *Code* [name=a]",
                        "type [masked] and press Enter into *Gate token* [name=b]");
        List<String> holding = filesThatHold("beetroot-42", "kohlrabi-43");
        while (holding == null) holding = filesThatHold("beetroot-42", "kohlrabi-43");
        assertThat(holding).isEmpty();
    }

    /** Null where a file went while they were read, as that of a video does when it is done: then it lies elsewhere now. */
    private List<String> filesThatHold(String... secrets) throws Exception {
        List<String> holding = new ArrayList<>();
        try (Stream<Path> files = Files.walk(recorder.folder())) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                String content = Files.readString(file, java.nio.charset.StandardCharsets.ISO_8859_1);
                for (String secret : secrets) if (content.contains(secret)) holding.add(file.toString());
            }
        } catch (NoSuchFileException | UncheckedIOException gone) {
            return null;
        }
        return holding;
    }

    @Test
    void waiting_is_a_step_whoever_waits_and_however() throws Exception {
        driver.get(garden.page(
                "/slow",
                "<button id=go onclick=\"setTimeout(() => { const d = document.createElement('p'); d.id = 'done';"
                        + " d.textContent = 'done'; document.body.append(d) }, 300)\">Go</button>"));
        driver.findElement(By.id("go")).click();
        var wait = new WebDriverWait(driver, Duration.ofSeconds(30), Duration.ofMillis(50));
        wait.until(ExpectedConditions.visibilityOfElementLocated(By.id("done")));
        driver.findElement(By.id("go")).click();
        String text = driver.findElement(By.id("done")).getText()
                + driver.findElement(By.id("done")).getText();
        List<Entry> entries = end(TestEnd.passed());

        assertThat(text).isEqualTo("donedone");
        assertThat(steps(entries).subList(1, 4))
                .containsExactly("click *Go* [#go]", "wait for *#done*", "click *Go* [#go]");
        assertThat(steps(entries)).hasSize(4);
        Entry.StepEntry waited = (Entry.StepEntry) entries.get(2);
        assertThat(waited.duration()).isBetween(Duration.ofMillis(100), Duration.ofSeconds(30));
    }

    @Test
    void windows_frames_and_dialogs_are_told() throws Exception {
        driver.get(garden.page(
                "/frames", "<iframe name=bed srcdoc=hi></iframe><button onclick=\"prompt('Why?')\">Ask</button>"));
        driver.switchTo().frame("bed");
        driver.switchTo().defaultContent();
        driver.findElement(By.tagName("button")).click();
        driver.switchTo().alert().sendKeys("rain");
        driver.switchTo().alert().accept();

        assertThat(steps(end(TestEnd.passed())).subList(1, 6))
                .containsExactly(
                        "go into frame bed",
                        "go out of all frames",
                        "click *Ask* [button]",
                        "type 'rain' into the dialog",
                        "accept the dialog");
    }

    @Test
    void images_are_kept_where_somebody_asks() throws Exception {
        driver.get(garden.page("/beds", "<h1>Beds</h1><p id=bed style='width:40px;height:30px;background:#a63'></p>"));
        VerbaleSelenium.screenshot("the beds", driver);
        VerbaleSelenium.screenshot("one bed", driver.findElement(By.id("bed")));

        assertThat(names(end(TestEnd.passed()))).containsExactly("the beds", "one bed");
    }
}
