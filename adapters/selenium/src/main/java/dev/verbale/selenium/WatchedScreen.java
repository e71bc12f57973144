package dev.verbale.selenium;

import dev.verbale.spi.AdapterRecorder;
import java.time.Duration;

/** The browser that an inspector looks into, as far as that asks for it: while it has this, the browser's session lives. */
interface WatchedScreen {

    AdapterRecorder recorder();

    /** How long the browser may take for an answer. */
    Duration timeLimit();

    boolean isFrameWanted();

    /** Whether it hears which window the test goes to. */
    boolean knowsItsWindow();

    /** What the browser shows, from now on. */
    void shows(byte[] image);
}
