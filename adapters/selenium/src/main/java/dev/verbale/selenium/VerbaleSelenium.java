package dev.verbale.selenium;

import dev.verbale.MediaType;
import dev.verbale.Verbale;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.ByteArrayInputStream;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.TakesScreenshot;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.events.EventFiringDecorator;

/**
 * Makes a browser tell what is done to it, and give session. One call, one of two:
 *
 * <pre>{@code
 * WebDriver driver = VerbaleSelenium.watch(new ChromeDriver()); // shared or not: whoever uses it has its evidence
 * VerbaleSelenium.register(driver);                             // keeps the driver's class; evidence only, no steps
 * }</pre>
 *
 * <p>From then on navigation, clicks, typing, waiting and changes of the window are steps in words, and a failing step or
 * test has a screenshot, the sources of all frames, the address and the title, what the console said and the network
 * brought, and a video. A driver that is closed before a failure is known has what it showed last.
 *
 * <p>All of that needs a Chromium's own debugging address; of other browsers there are the steps, the screenshot, the
 * source, the address and the title. Nothing is ever asked that would dismiss an open dialog: that would change what the
 * test does next.
 *
 * @since 0.2.0
 */
public final class VerbaleSelenium {

    private VerbaleSelenium() {}

    /**
     * A driver that does what {@code driver} does, and belongs to every test that calls it while that test runs. It
     * implements the interfaces of {@code driver}, and is not of its class.
     */
    public static WebDriver watch(WebDriver driver) {
        AdapterRecorder recorder = AdapterRecorder.current();
        if (driver == null || !recorder.isRecording()) return driver;
        DriverSession session = DriverSession.of(driver);
        var actions = new Actions(recorder, new ElementNames(recorder, driver, session), session);
        session.followedBy(actions);
        return new EventFiringDecorator<>(new UseListener(driver, session, actions)).decorate(driver);
    }

    /** Makes {@code driver} belong to the test that runs on this thread; in the set-up of a class, to all its tests. */
    public static void register(WebDriver driver) {
        if (driver == null || !AdapterRecorder.current().isRecording()) return;
        DriverSession session = DriverSession.of(driver);
        Verbale.register(session);
        session.used();
    }

    /**
     * Attaches a screenshot of what {@code shown}, a driver or an element, shows now; says why where there is none.
     *
     * @param name what a reader sees
     */
    public static void screenshot(String name, TakesScreenshot shown) {
        if (shown == null) {
            Verbale.log("There is no screenshot '{}': there is nothing to take it of, for it is null", name);
            return;
        }
        AdapterRecorder recorder = AdapterRecorder.current();
        if (!recorder.isRecording()) return;
        try {
            recorder.attach(
                    recorder.currentScope(),
                    name,
                    AttachmentKind.SCREENSHOT,
                    new ByteArrayInputStream(shown.getScreenshotAs(OutputType.BYTES)),
                    MediaType.PNG,
                    0);
        } catch (RuntimeException | Error none) { // as of a browser that is gone: it costs the image, and not the test
            Verbale.log(
                    "There is no screenshot '{}': {}: {}",
                    name,
                    none.getClass().getName(),
                    String.valueOf(none.getMessage()).lines().findFirst().orElse(""));
        }
    }

    /** Attaches what a driver or an element shows that is known by its general type. */
    public static void screenshot(String name, WebDriver driver) {
        if (driver == null || driver instanceof TakesScreenshot) screenshot(name, (TakesScreenshot) driver);
        else Verbale.log("There is no screenshot '{}': this driver takes none", name);
    }

    /** Attaches what {@code element} shows. */
    public static void screenshot(String name, WebElement element) {
        screenshot(name, (TakesScreenshot) element);
    }
}
