package dev.verbale.selenium;

import dev.verbale.Verbale;
import dev.verbale.event.PaperKept;
import dev.verbale.recorder.Recorder;
import java.io.ByteArrayInputStream;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.TakesScreenshot;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.events.EventFiringDecorator;

/**
 * Makes a browser tell what is done to it, and give evidence. One call, one of two:
 *
 * <pre>{@code
 * WebDriver driver = VerbaleSelenium.watch(new ChromeDriver()); // shared or not: whoever uses it has its evidence
 * VerbaleSelenium.announce(driver);                             // keeps the driver's class; evidence only, no steps
 * }</pre>
 *
 * <p>From then on navigation, clicks, typing, waiting and changes of the window are steps in words, and a failing step or
 * test has a screenshot, the sources of all frames, the address and the title, what the console said and the network
 * brought, and a video. A driver that is closed before a failure is known has what it showed last.
 *
 * <p>All of that needs a Chromium's own debugging address; of other browsers there are the steps, the screenshot, the
 * source, the address and the title. Nothing is ever asked that would dismiss an open dialog: that would change what the
 * test does next.
 */
public final class VerbaleSelenium {

    private VerbaleSelenium() {}

    /**
     * A driver that does what {@code driver} does, and belongs to every test that calls it while that test runs. It
     * implements the interfaces of {@code driver}, and is not of its class.
     */
    public static WebDriver watch(WebDriver driver) {
        Recorder recorder = Recorder.current();
        if (driver == null || !recorder.isRecording()) return driver;
        BrowserEvidence evidence = BrowserEvidence.of(driver);
        var actions = new Actions(recorder, new ElementNames(recorder, driver, evidence), evidence);
        evidence.tell(actions);
        return new EventFiringDecorator<>(new UseListener(driver, evidence, actions)).decorate(driver);
    }

    /** Makes {@code driver} belong to the test that runs on this thread; in the set-up of a class, to all its tests. */
    public static void announce(WebDriver driver) {
        if (driver == null || !Recorder.current().isRecording()) return;
        BrowserEvidence evidence = BrowserEvidence.of(driver);
        Verbale.announce(evidence);
        evidence.used();
    }

    /**
     * Keeps a picture of what {@code shown}, a driver or an element, shows now.
     *
     * @param name what a reader sees
     */
    public static void picture(String name, TakesScreenshot shown) {
        if (shown != null) keep(name, shown.getScreenshotAs(OutputType.BYTES));
    }

    /** The same for a driver or an element that is known by its general type. */
    public static void picture(String name, WebDriver driver) {
        if (driver instanceof TakesScreenshot camera) picture(name, camera);
        else Verbale.note("There is no picture '{}': this driver takes none", name);
    }

    /** The same for an element. */
    public static void picture(String name, WebElement element) {
        if (element != null) keep(name, element.getScreenshotAs(OutputType.BYTES));
    }

    private static void keep(String name, byte[] picture) {
        Recorder recorder = Recorder.current();
        recorder.paper(recorder.here(), name, PaperKept.SCREENSHOT, new ByteArrayInputStream(picture), "image/png", 0);
    }
}
