package dev.verbale.playwright;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.assertions.PageAssertions;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import dev.verbale.Verbale;
import dev.verbale.recorder.Recorder;

/**
 * Makes a page tell what is done to it, and give evidence. One call, one of two:
 *
 * <pre>{@code
 * Page page = VerbalePlaywright.watch(context.newPage());
 * VerbalePlaywright.announce(page); // evidence and film only; the page stays the object that it is
 * }</pre>
 *
 * <p>A watched page and its locators implement Playwright's interfaces and are not of its classes, which its own assertions
 * insist on. So their {@code assertThat} is imported from here instead, and each assertion is a check in the minutes too.
 *
 * <p>As everything of Playwright, all of this belongs to the thread that made the page.
 */
public final class VerbalePlaywright {

    private VerbalePlaywright() {}

    /** A page that does what {@code page} does, tells it as steps, and belongs to every test that uses it. */
    public static Page watch(Page page) {
        if (page == null || !Recorder.current().isRecording()) return page;
        return Narrating.page(page, PageEvidence.of(page));
    }

    /** Makes {@code page} belong to the test that runs on this thread; in the set-up of a class, to all its tests. */
    public static void announce(Page page) {
        if (page == null || !Recorder.current().isRecording()) return;
        PageEvidence evidence = PageEvidence.of(Narrating.real(page));
        Verbale.announce(evidence);
        evidence.used();
    }

    /** Playwright's own assertions of a locator, watched or not. */
    public static LocatorAssertions assertThat(Locator locator) {
        LocatorAssertions real = PlaywrightAssertions.assertThat(Narrating.real(locator));
        return Checking.of(LocatorAssertions.class, real, Narrating.name(locator));
    }

    /** Playwright's own assertions of a page, watched or not. */
    public static PageAssertions assertThat(Page page) {
        PageAssertions real = PlaywrightAssertions.assertThat(Narrating.real(page));
        return Checking.of(PageAssertions.class, real, "the page");
    }
}
