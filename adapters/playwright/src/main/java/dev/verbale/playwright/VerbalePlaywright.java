package dev.verbale.playwright;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.assertions.PageAssertions;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import dev.verbale.Verbale;
import dev.verbale.spi.Context;
import org.jspecify.annotations.Nullable;

/**
 * Records what is done to a page, and captures evidence of it. One call, one of two:
 *
 * <pre>{@code
 * Page page = VerbalePlaywright.watch(context.newPage());
 * VerbalePlaywright.register(page); // evidence and video only; the page stays the object that it is
 * }</pre>
 *
 * <p>A watched page and its locators implement Playwright's interfaces and are not of its classes, which its own assertions
 * insist on. So their {@code assertThat} is imported from here instead, and each assertion is a recorded check too.
 *
 * <p>As everything of Playwright, all of this belongs to the thread that made the page.
 *
 * @since 0.2.0
 */
public final class VerbalePlaywright {

    private VerbalePlaywright() {}

    /** A page that does what {@code page} does, records it as steps, and belongs to every test that uses it. */
    public static Page watch(Page page) {
        if (page == null || !Context.current().isRecording()) return page;
        PageSession session = session(page);
        return session == null ? page : RecordingProxy.page(page, session);
    }

    /** Makes {@code page} belong to the test that runs on this thread; in the set-up of a class, to all its tests. */
    public static void register(Page page) {
        if (page == null || !Context.current().isRecording()) return;
        PageSession session = session(RecordingProxy.real(page));
        if (session == null) return;
        Verbale.register(session);
        session.used();
    }

    /** Null for a page that lets nobody listen, as one that is closed, or one that only stands for a page. */
    private static @Nullable PageSession session(Page page) {
        try {
            return PageSession.of(page);
        } catch (RuntimeException | Error broken) {
            Verbale.log(
                    "A page is not recorded, since it could not be listened to: {}",
                    broken.getClass().getName());
            return null;
        }
    }

    /** Playwright's own assertions of a locator, watched or not. */
    public static LocatorAssertions assertThat(Locator locator) {
        LocatorAssertions real = PlaywrightAssertions.assertThat(RecordingProxy.real(locator));
        return Checking.of(LocatorAssertions.class, real, RecordingProxy.name(locator));
    }

    /** Playwright's own assertions of a page, watched or not. */
    public static PageAssertions assertThat(Page page) {
        PageAssertions real = PlaywrightAssertions.assertThat(RecordingProxy.real(page));
        return Checking.of(PageAssertions.class, real, "the page");
    }
}
