package dev.verbale.selenium;

import dev.verbale.browser.Look;
import dev.verbale.event.PaperKept;
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
 * Looks at a browser of any kind through its driver: the picture, the source, the address. In a thread of its own that lives
 * as long as the look, for a driver that hangs would hold the test for minutes.
 */
final class DriverEyes implements Eyes {

    private final WebDriver driver;

    DriverEyes(WebDriver driver) {
        this.driver = driver;
    }

    @Override
    public Look look(Duration most, boolean fullPage) {
        var look = new Look();
        var done = new CompletableFuture<Void>();
        var thread = new Thread(
                () -> {
                    try {
                        fill(look);
                        done.complete(null);
                    } catch (Throwable none) {
                        done.completeExceptionally(none);
                    }
                },
                "verbale-look");
        thread.setDaemon(true);
        thread.start();
        try {
            done.get(most.toMillis(), TimeUnit.MILLISECONDS);
        } catch (TimeoutException late) {
            thread.interrupt();
            look.note("The browser did not answer within " + most.toMillis() / 1000.0 + " s, and the rest is missing.");
        } catch (InterruptedException stopped) {
            thread.interrupt();
            look.note("The thread was interrupted, and the rest is missing.");
            Thread.currentThread().interrupt();
        } catch (java.util.concurrent.ExecutionException none) {
            Throwable why = none.getCause() == null ? none : none.getCause();
            look.note("No evidence from browser: " + why.getClass().getName() + ": "
                    + String.valueOf(why.getMessage()).lines().findFirst().orElse(""));
        }
        look.close(); // the thread may still be at it, and must not write what is being read
        return look;
    }

    private void fill(Look look) {
        String dialog = openDialog();
        if (dialog != null) {
            look.note("The browser shows a dialog: \"" + dialog + "\". There is no screenshot: taking it would"
                    + " dismiss the dialog.");
            return;
        }
        look.note("The browser was at " + driver.getCurrentUrl() + ", titled \"" + driver.getTitle() + "\"");
        WebDriverException problem = null; // one that fails must not cost the other
        try {
            if (driver instanceof TakesScreenshot camera)
                look.paper("screenshot", PaperKept.SCREENSHOT, camera.getScreenshotAs(OutputType.BYTES), "image/png");
        } catch (WebDriverException none) {
            problem = none;
        }
        String source = driver.getPageSource();
        if (source != null)
            look.paper("page source", PaperKept.PAGE_SOURCE, source.getBytes(StandardCharsets.UTF_8), "text/html");
        if (problem != null) throw problem;
    }

    /** A picture as it is now; empty where a dialog is open, which it would dismiss, or where there is none to be had. */
    @Override
    public byte[] picture(Duration most) {
        try {
            if (!(driver instanceof TakesScreenshot camera) || openDialog() != null) return new byte[0];
            return camera.getScreenshotAs(OutputType.BYTES);
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
