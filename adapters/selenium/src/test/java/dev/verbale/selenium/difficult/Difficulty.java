package dev.verbale.selenium.difficult;

import dev.verbale.browser.difficult.Site;
import dev.verbale.browser.difficult.Transcript;
import org.openqa.selenium.WebDriver;

/**
 * Something difficult that a test does to a browser.
 *
 * @param name what it is
 * @param needs what kind of browser it needs
 * @param deed what is done
 */
record Difficulty(String name, Needs needs, Deed deed) {

    /** What kind of browser a difficulty needs. */
    enum Needs {
        /** One that others may use before and after it. */
        ANY,
        /** One of its own, since it ends it. */
        OWN,
        /** One that returns before a page is loaded. */
        EAGER,
        /** One that returns at once. */
        NONE,
        /** One behind a remote driver, without the browser's debugging address. */
        REMOTE
    }

    /** What is done to the browser. */
    interface Deed {
        void to(WebDriver driver, Site site, Transcript transcript) throws Exception;
    }

    @Override
    public String toString() {
        return name;
    }
}
