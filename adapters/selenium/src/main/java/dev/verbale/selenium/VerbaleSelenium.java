package dev.verbale.selenium;

import dev.verbale.Verbale;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.support.events.EventFiringDecorator;

/**
 * Makes a browser give evidence. One call, one of two:
 *
 * <pre>{@code
 * WebDriver driver = VerbaleSelenium.watch(new ChromeDriver()); // shared or not: whoever uses it has its evidence
 * VerbaleSelenium.announce(driver);                             // keeps the driver's class, for this test or class only
 * }</pre>
 *
 * <p>From then on a failing step or test has a screenshot, the page source, the address and the title, taken at that
 * moment. Nothing is taken while a dialog is open, apart from its text: a screenshot would dismiss it, and so change what
 * the test does next.
 */
public final class VerbaleSelenium {

    private VerbaleSelenium() {}

    /**
     * A driver that does what {@code driver} does, and belongs to every test that calls it while that test runs. It
     * implements the interfaces of {@code driver}, and is not of its class.
     */
    public static WebDriver watch(WebDriver driver) {
        var evidence = new BrowserEvidence(driver);
        return new EventFiringDecorator<>(new UseListener(evidence)).decorate(driver);
    }

    /** Makes {@code driver} belong to the test that runs on this thread; in the set-up of a class, to all its tests. */
    public static void announce(WebDriver driver) {
        Verbale.announce(new BrowserEvidence(driver));
    }
}
