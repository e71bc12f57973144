package dev.verbale.report;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.logging.Level;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.logging.LogEntry;
import org.openqa.selenium.logging.LogType;
import org.openqa.selenium.logging.LoggingPreferences;
import org.openqa.selenium.support.ui.WebDriverWait;

/** A real browser that opens pages from disk, as a double click does. The next one of this JVM is the same, with nothing left in it. */
final class Chromium implements AutoCloseable {

    private static final Map<Boolean, ChromeDriver> STARTED = new ConcurrentHashMap<>();

    final ChromeDriver driver;
    private boolean runsScripts = true;

    private Path opened = Path.of("");

    Chromium() {
        this(false);
    }

    /** @param hearsRequests whether {@link #requests} is asked: a browser that tells of each has more to do */
    Chromium(boolean hearsRequests) {
        driver = STARTED.computeIfAbsent(hearsRequests, Chromium::start);
    }

    private static ChromeDriver start(boolean hearsRequests) {
        var options = new ChromeOptions();
        options.setBinary(System.getProperty("tests.browser", "/usr/bin/chromium"));
        options.addArguments("--headless=new", "--no-sandbox", "--disable-gpu", "--disable-background-networking");
        // Windows of the address bar that nobody sees cost more than the page.
        options.addArguments("--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup");
        options.addArguments("--window-size=1280,943");
        var logs = new LoggingPreferences();
        logs.enable(LogType.BROWSER, Level.ALL);
        if (hearsRequests) logs.enable(LogType.PERFORMANCE, Level.ALL);
        options.setCapability("goog:loggingPrefs", logs);
        var service = new ChromeDriverService.Builder()
                .usingDriverExecutable(Path.of("/usr/bin/chromedriver").toFile())
                .usingAnyFreePort()
                .build();
        var driver = new ChromeDriver(service, options);
        Runtime.getRuntime().addShutdownHook(new Thread(driver::quit));
        return driver;
    }

    void open(Path index, String hash) {
        driver.get("about:blank");
        if (!opened.equals(index)) complaints(); // of the page before, whose folder is gone by now
        opened = index;
        driver.get(index.toUri() + hash);
        waitUntilShown();
    }

    /** Another view of the page that is open, as a link in it leads there. */
    void follow(String hash) {
        driver.executeScript("location.hash = arguments[0]", hash);
        settle();
        waitUntilShown();
    }

    private void waitUntilShown() {
        waitFor("return document.querySelector('#page > *') !== null && !document.querySelector('[aria-busy=true]')");
    }

    /** Opens {@code index} as a browser does that runs no scripts. */
    void withoutScripts(Path index) {
        driver.executeCdpCommand("Emulation.setScriptExecutionDisabled", Map.of("value", true));
        runsScripts = false;
        driver.get("about:blank");
        driver.get(index.toUri().toString());
    }

    void withScripts() {
        driver.executeCdpCommand("Emulation.setScriptExecutionDisabled", Map.of("value", false));
        runsScripts = true;
    }

    /** For tools that look at a page through a driver. */
    ChromeDriver driver() {
        return driver;
    }

    void resize(int width, int height) {
        driver.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", false));
    }

    WebElement find(String css) {
        return new WebDriverWait(driver, Duration.ofSeconds(30), Duration.ofMillis(20))
                .until(d -> d.findElement(By.cssSelector(css)));
    }

    /** Waits until {@code script} gives something true. */
    void waitFor(String script) {
        new WebDriverWait(driver, Duration.ofSeconds(30), Duration.ofMillis(20))
                .withMessage(script)
                .until(d -> {
                    Object found = driver.executeScript(script);
                    return Boolean.FALSE.equals(found) ? null : found;
                });
    }

    /** What stands in the first of them, which may be drawn anew this moment. */
    String text(String css) {
        settle();
        return new WebDriverWait(driver, Duration.ofSeconds(30), Duration.ofMillis(20))
                .ignoring(StaleElementReferenceException.class)
                .until(d -> d.findElement(By.cssSelector(css)).getText());
    }

    /** What can be seen of each, with one blank between words; in one call, as each is a way to the browser and back. */
    List<String> texts(String css) {
        settle();
        List<String> seen = new ArrayList<>();
        for (Object text : (List<?>) driver.executeScript(
                "return [...document.querySelectorAll(arguments[0])].map("
                        + "one => one.checkVisibility() ? one.innerText ?? one.textContent : '')",
                css)) seen.add(text.toString().replaceAll("\\s+", " ").strip());
        return seen;
    }

    /** What a click or a key set off is drawn two frames later at the latest: a page opens its details after the click is over. */
    private void settle() {
        if (runsScripts)
            driver.executeAsyncScript(
                    "const done = arguments[0]; requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done)));");
    }

    void press(CharSequence keys) {
        driver.findElement(By.tagName("body")).sendKeys(keys);
    }

    void escape() {
        driver.switchTo().activeElement().sendKeys(Keys.ESCAPE);
    }

    /** What the browser asked for since the last call, by address. */
    List<String> requests() {
        return driver.manage().logs().get(LogType.PERFORMANCE).getAll().stream()
                .map(LogEntry::getMessage)
                .filter(message -> message.contains("\"Network.requestWillBeSent\""))
                .map(message -> message.replaceAll("(?s).*\"request\":\\{.*?\"url\":\"([^\"]*)\".*", "$1"))
                .toList();
    }

    /** What the browser complained of since the last call: script errors, and what the page's policy blocked. */
    List<String> complaints() {
        return driver.manage().logs().get(LogType.BROWSER).getAll().stream()
                .map(LogEntry::getMessage)
                .toList();
    }

    Object script(String text) {
        return driver.executeScript(text);
    }

    @Override
    public void close() {
        driver.get("about:blank");
        driver.executeCdpCommand("Storage.clearDataForOrigin", Map.of("origin", "file://", "storageTypes", "all"));
        driver.executeCdpCommand("Emulation.clearDeviceMetricsOverride", Map.of());
        driver.executeCdpCommand("Network.setUserAgentOverride", Map.of("userAgent", "")); // and its languages
        complaints();
    }
}
