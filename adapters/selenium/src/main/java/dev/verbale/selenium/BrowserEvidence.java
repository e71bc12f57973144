package dev.verbale.selenium;

import dev.verbale.event.PaperKept;
import dev.verbale.evidence.Evidence;
import dev.verbale.evidence.EvidenceSource;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import org.openqa.selenium.NoAlertPresentException;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.TakesScreenshot;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebDriverException;

/** Takes a browser's evidence. Two for the same driver are equal, so that announcing it twice changes nothing. */
final class BrowserEvidence implements EvidenceSource {

    private final WebDriver driver;
    private volatile boolean closed;

    BrowserEvidence(WebDriver driver) {
        this.driver = driver;
    }

    void browserCloses() {
        closed = true;
    }

    @Override
    public String name() {
        return "browser";
    }

    @Override
    public void take(Evidence evidence) {
        if (closed) return; // it closed in good order, perhaps many tests ago
        String dialog = openDialog();
        if (dialog != null) {
            evidence.note("The browser shows a dialog: \"" + dialog + "\". There is no screenshot: taking it would"
                    + " dismiss the dialog.");
            return;
        }
        evidence.note("The browser was at " + driver.getCurrentUrl() + ", titled \"" + driver.getTitle() + "\"");
        // One that fails must not cost the other.
        WebDriverException problem = null;
        try {
            screenshot(evidence);
        } catch (WebDriverException none) {
            problem = none;
        }
        pageSource(evidence);
        if (problem != null) throw problem;
    }

    private void screenshot(Evidence evidence) {
        if (!(driver instanceof TakesScreenshot camera)) return;
        evidence.paper("screenshot", PaperKept.SCREENSHOT, camera.getScreenshotAs(OutputType.BYTES), "image/png");
    }

    private void pageSource(Evidence evidence) {
        String source = driver.getPageSource();
        if (source != null)
            evidence.paper("page source", PaperKept.PAGE_SOURCE, source.getBytes(StandardCharsets.UTF_8), "text/html");
    }

    private @Nullable String openDialog() {
        try {
            return String.valueOf(driver.switchTo().alert().getText());
        } catch (NoAlertPresentException none) {
            return null;
        }
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof BrowserEvidence evidence && evidence.driver == driver;
    }

    @Override
    public int hashCode() {
        return System.identityHashCode(driver);
    }
}
