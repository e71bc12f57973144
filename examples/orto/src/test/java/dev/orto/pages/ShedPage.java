package dev.orto.pages;

import dev.verbale.Verbale;
import dev.verbale.selenium.NamedLocator;
import java.net.URI;
import org.openqa.selenium.By;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.support.ui.ExpectedConditions;

/** The tool shed and its key. */
public final class ShedPage extends GardenPage {

    private static final By TAKE = NamedLocator.of("Take the key", By.cssSelector("#key button"));

    public ShedPage(WebDriver driver, URI garden) {
        super(driver, garden, "/shed");
    }

    public void takeTheKey(String neighbour, String code) {
        Verbale.step(neighbour + " takes the key", () -> {
            driver.findElement(By.name("neighbour")).sendKeys(neighbour);
            driver.findElement(By.name("code")).sendKeys(code);
            driver.findElement(TAKE).click();
        });
    }

    /** Waits until the page says {@code state} of the key. */
    public void waitFor(String state) {
        waiting().until(ExpectedConditions.textToBe(By.className("state"), state));
    }
}
