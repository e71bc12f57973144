package dev.verbale.selenium;

import dev.verbale.browser.Look;
import java.time.Duration;

/** A way to look at a browser without changing what its test does next. */
interface Eyes {

    /** Takes what can be had within {@code most}, and says what could not. */
    Look look(Duration most, boolean fullPage);

    /** A picture of the current window as it is now, a JPEG or a PNG; empty where there is none to be had. */
    byte[] picture(Duration most);
}
