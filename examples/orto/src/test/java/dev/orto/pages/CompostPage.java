package dev.orto.pages;

import java.net.URI;
import org.openqa.selenium.By;
import org.openqa.selenium.WebDriver;

/** The compost heap and its temperature. */
public final class CompostPage extends GardenPage {

    public CompostPage(WebDriver driver, URI garden) {
        super(driver, garden, "/compost");
    }

    /** The curve's points, once it is drawn. */
    public String curve() {
        By curve = By.cssSelector(".chart polyline");
        return waiting().until(d -> d.findElement(curve)).getDomAttribute("points");
    }
}
