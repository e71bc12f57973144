package dev.verbale.selenium;

import dev.verbale.MediaType;
import dev.verbale.browser.BrowserSnapshot;
import dev.verbale.vocabulary.AttachmentKind;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.jspecify.annotations.Nullable;
import org.openqa.selenium.NoAlertPresentException;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.TakesScreenshot;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebDriverException;

/**
 * Looks at a browser of any kind through its driver: the screenshot, the source, the address. In a thread of its own that
 * lives as long as that, for a driver that hangs would hold the test for minutes.
 */
final class DriverInspector implements BrowserInspector {

    private final WebDriver driver;

    DriverInspector(WebDriver driver) {
        this.driver = driver;
    }

    @Override
    public BrowserSnapshot snapshot(Duration limit, boolean fullPage) {
        var snapshot = new BrowserSnapshot.Builder();
        var done = new CompletableFuture<Void>();
        var thread = new Thread(
                () -> {
                    try {
                        fill(snapshot);
                        done.complete(null);
                    } catch (Throwable none) {
                        done.completeExceptionally(none);
                    }
                },
                "verbale-snapshot");
        thread.setDaemon(true);
        thread.start();
        try {
            done.get(limit.toMillis(), TimeUnit.MILLISECONDS);
        } catch (TimeoutException late) {
            thread.interrupt();
            snapshot.log(
                    "The browser did not answer within " + limit.toMillis() / 1000.0 + " s, and the rest is missing.");
        } catch (InterruptedException stopped) {
            thread.interrupt();
            snapshot.log("The thread was interrupted, and the rest is missing.");
            Thread.currentThread().interrupt();
        } catch (java.util.concurrent.ExecutionException none) {
            Throwable why = none.getCause() == null ? none : none.getCause();
            snapshot.log("No evidence from browser: " + why.getClass().getName() + ": "
                    + String.valueOf(why.getMessage()).lines().findFirst().orElse(""));
        }
        return snapshot.build(); // the thread may still be at it, and what it adds now is nobody's
    }

    private void fill(BrowserSnapshot.Builder snapshot) {
        String dialog = openDialog();
        if (dialog != null) {
            snapshot.log("The browser shows a dialog: \"" + dialog + "\". There is no screenshot: taking it would"
                    + " dismiss the dialog.");
            return;
        }
        snapshot.log(
                "This driver has no debugging address that is open to us: of console, network, frames and other windows"
                        + " nothing is known.");
        snapshot.log("The browser was at " + driver.getCurrentUrl() + ", titled \"" + driver.getTitle() + "\"");
        WebDriverException problem = null; // one that fails must not cost the other
        try {
            if (driver instanceof TakesScreenshot able)
                snapshot.attach(
                        "screenshot", AttachmentKind.SCREENSHOT, able.getScreenshotAs(OutputType.BYTES), MediaType.PNG);
        } catch (WebDriverException none) {
            problem = none;
        }
        String source = driver.getPageSource();
        if (source != null)
            snapshot.attach(
                    "page source", AttachmentKind.PAGE_SOURCE, source.getBytes(StandardCharsets.UTF_8), MediaType.HTML);
        if (problem != null) throw problem;
    }

    @Override
    public boolean isLastWindow() {
        return driver.getWindowHandles().size() <= 1;
    }

    /** An image as it is now; empty where a dialog is open, which it would dismiss, or where there is none to be had. */
    @Override
    public byte[] image(Duration limit) {
        try {
            if (!(driver instanceof TakesScreenshot able) || openDialog() != null) return new byte[0];
            return able.getScreenshotAs(OutputType.BYTES);
        } catch (WebDriverException none) {
            return new byte[0];
        }
    }

    private @Nullable String openDialog() {
        try {
            return String.valueOf(driver.switchTo().alert().getText());
        } catch (NoAlertPresentException none) {
            return null;
        }
    }
}
