package dev.orto.pages;

import java.net.URI;
import java.util.List;
import org.openqa.selenium.By;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebElement;

/** The first page: all plots. */
public final class PlotsPage extends GardenPage {

    public PlotsPage(WebDriver driver, URI garden) {
        super(driver, garden, "/");
    }

    public List<String> crops() {
        return driver.findElements(By.className("crop")).stream()
                .map(WebElement::getText)
                .toList();
    }

    /** The drawn plan, as a PNG. */
    public byte[] plan() {
        return driver.findElement(By.id("plan")).getScreenshotAs(OutputType.BYTES);
    }

    public String keeperOf(int plot) {
        return driver.findElement(By.cssSelector("[data-plot='" + plot + "'] .keeper"))
                .getText();
    }

    public void follow(String menuEntry) {
        driver.findElement(By.linkText(menuEntry)).click();
    }
}
