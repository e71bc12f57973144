package dev.verbale.selenium;

import dev.verbale.browser.BrowserSnapshot;
import java.time.Duration;

/** A way to look at a browser without changing what its test does next. */
interface BrowserInspector {

    /** What can be had within {@code limit}; it says itself what cannot. */
    BrowserSnapshot snapshot(Duration limit, boolean fullPage);

    /** Whether nothing is left once the window is closed that the driver is in. */
    boolean isLastWindow();

    /** An image of the current window as it is now, a JPEG or a PNG; empty where there is none to be had. */
    byte[] image(Duration limit);
}
