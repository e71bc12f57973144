package dev.orto.pages;

import java.net.URI;
import java.time.Duration;
import java.util.List;
import org.openqa.selenium.By;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebDriverException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.ExpectedConditions;
import org.openqa.selenium.support.ui.Select;
import org.openqa.selenium.support.ui.WebDriverWait;

/** What all of the garden's pages have. */
public abstract class GardenPage {

    protected final WebDriver driver;
    private final URI address;

    GardenPage(WebDriver driver, URI garden, String path) {
        this.driver = driver;
        this.address = garden.resolve(path);
    }

    public void open() {
        driver.get(address.toString());
    }

    public String heading() {
        return driver.findElement(By.tagName("h1")).getText();
    }

    public List<String> menu() {
        return driver.findElements(By.cssSelector("nav a")).stream()
                .map(WebElement::getText)
                .toList();
    }

    /** The line below the form, once there is one. */
    public String message() {
        By message = By.cssSelector(".message.bad");
        return waiting().until(d -> d.findElement(message)).getText();
    }

    protected void choose(String field, String option) {
        new Select(driver.findElement(By.name(field))).selectByVisibleText(option);
    }

    protected WebDriverWait waiting() {
        return waiting(Duration.ofSeconds(3));
    }

    protected WebDriverWait waiting(Duration longest) {
        return new WebDriverWait(driver, longest, Duration.ofMillis(100));
    }

    /**
     * Does {@code act} and waits for the page that it leads to. A browser that is asked about an element of a page just
     * going away answers with whatever error it is at: each of them means "ask again".
     */
    protected void reloading(Runnable act) {
        WebElement old = driver.findElement(By.tagName("body"));
        act.run();
        waiting(Duration.ofSeconds(30)).ignoring(WebDriverException.class).until(ExpectedConditions.stalenessOf(old));
    }
}
