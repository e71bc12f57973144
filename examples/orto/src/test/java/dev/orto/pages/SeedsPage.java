package dev.orto.pages;

import dev.verbale.Verbale;
import java.net.URI;
import org.openqa.selenium.By;
import org.openqa.selenium.WebDriver;

/** The seed library. */
public final class SeedsPage extends GardenPage {

    private static final By BORROW = By.id("lend");

    public SeedsPage(WebDriver driver, URI garden) {
        super(driver, garden, "/seeds");
    }

    public int sachets(String seed) {
        return Integer.parseInt(cell(seed, "sachets"));
    }

    public String lentTo(String seed) {
        return cell(seed, "lent");
    }

    public void borrow(String seed, String neighbour) {
        Verbale.step(neighbour + " borrows " + seed, () -> {
            fillIn(seed, neighbour);
            reloading(() -> driver.findElement(BORROW).click());
        });
    }

    public void borrowInVain(String seed, String neighbour) {
        fillIn(seed, neighbour);
        driver.findElement(By.cssSelector("#loan button")).click();
    }

    private void fillIn(String seed, String neighbour) {
        Verbale.step("Fill in the form", () -> {
            choose("seed", seed);
            driver.findElement(By.name("neighbour")).sendKeys(neighbour);
        });
    }

    private String cell(String seed, String column) {
        return driver.findElement(By.cssSelector("[data-seed='" + seed + "'] ." + column))
                .getText();
    }
}
