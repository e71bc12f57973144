package dev.verbale.acceptance;

import java.nio.file.Path;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;

/** Browsers without a monitor, as this machine has them. */
final class Browsers {

    private Browsers() {}

    static ChromeDriver start() {
        var options = new ChromeOptions();
        options.setBinary(System.getProperty("tests.browser", "/usr/bin/chromium"));
        options.addArguments("--headless=new", "--no-sandbox", "--disable-gpu", "--hide-scrollbars");
        options.addArguments("--disable-background-networking");
        // Windows of the address bar that nobody sees cost more than the page.
        options.addArguments("--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup");
        var service = new ChromeDriverService.Builder()
                .usingDriverExecutable(Path.of("/usr/bin/chromedriver").toFile())
                .usingAnyFreePort()
                .build();
        return new ChromeDriver(service, options);
    }
}
