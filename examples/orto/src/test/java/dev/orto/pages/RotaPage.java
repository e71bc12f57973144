package dev.orto.pages;

import dev.verbale.Verbale;
import java.net.URI;
import java.util.stream.Collectors;
import org.openqa.selenium.By;
import org.openqa.selenium.WebDriver;

/** Who waters when. */
public final class RotaPage extends GardenPage {

    public RotaPage(WebDriver driver, URI garden) {
        super(driver, garden, "/rota");
    }

    public String neighbourOn(String day) {
        return driver.findElement(By.cssSelector("[data-day='" + day + "'] .neighbour"))
                .getText();
    }

    public void swap(String first, String second) {
        Verbale.step("Swap " + first + " with " + second, () -> {
            choose("first", first);
            choose("second", second);
            reloading(() -> driver.findElement(By.cssSelector("#swap button")).click());
        });
    }

    public void swapInVain(String first, String second) {
        choose("first", first);
        choose("second", second);
        driver.findElement(By.cssSelector("#swap button")).click();
    }

    public String asCsv() {
        return driver.findElements(By.cssSelector(".rota tbody tr")).stream()
                .map(row -> row.findElement(By.tagName("th")).getText() + ","
                        + row.findElement(By.tagName("td")).getText())
                .collect(Collectors.joining("\n", "day,waters\n", "\n"));
    }
}
