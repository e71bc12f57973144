package dev.orto.browser;

import dev.orto.GardenServer;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openqa.selenium.WebDriver;

/** One browser for a class, one garden for a test. */
@NeedsBrowser
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
abstract class BrowserTest {

    @RegisterExtension
    final GardenServer garden = new GardenServer();

    WebDriver driver;

    @BeforeAll
    void open_the_browser() {
        driver = Browser.open();
    }

    @AfterAll
    void close_the_browser() {
        if (driver != null) driver.quit();
    }
}
