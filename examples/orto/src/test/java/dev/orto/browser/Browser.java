package dev.orto.browser;

import dev.verbale.Verbale;
import dev.verbale.selenium.VerbaleSelenium;
import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.stream.Stream;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;

/** The machine's own Chromium, without a screen. */
final class Browser {

    private static final Optional<Path> CHROMIUM = onPath("chromium", "google-chrome", "chrome");
    private static final Optional<Path> DRIVER = onPath("chromedriver");

    private Browser() {}

    /** Why there is no browser to drive, or empty where there is one. */
    static Optional<String> missing() {
        if (CHROMIUM.isEmpty()) return Optional.of("no Chromium or Chrome on the PATH");
        if (DRIVER.isEmpty()) return Optional.of("no chromedriver on the PATH");
        return Optional.empty();
    }

    static WebDriver open() {
        var options = new ChromeOptions();
        options.setBinary(CHROMIUM.orElseThrow().toFile());
        options.addArguments("--headless=new", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run");
        options.addArguments("--disable-background-networking", "--disable-component-update", "--disable-sync");
        // Windows of the address bar that nobody sees cost more than the page.
        options.addArguments("--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup");
        options.addArguments("--window-size=1280,943"); // a viewport of 1280 by 800
        var service = new ChromeDriverService.Builder()
                .usingDriverExecutable(DRIVER.orElseThrow().toFile())
                .usingAnyFreePort()
                .build();
        var driver = new ChromeDriver(service, options);
        Verbale.fact("browser", "Chromium " + driver.getCapabilities().getBrowserVersion());
        return VerbaleSelenium.watch(driver);
    }

    private static Optional<Path> onPath(String... names) {
        String[] folders = System.getenv().getOrDefault("PATH", "").split(File.pathSeparator);
        return Stream.of(names)
                .flatMap(name -> Stream.of(folders).map(folder -> Path.of(folder, name)))
                .filter(Files::isExecutable)
                .findFirst();
    }
}
