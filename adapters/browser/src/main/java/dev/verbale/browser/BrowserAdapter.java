package dev.verbale.browser;

import dev.verbale.spi.Adapter;
import dev.verbale.spi.Setting;
import java.util.List;

/**
 * What this adapter brings: the settings that all adapters of browsers go by.
 *
 * @since 0.2.0
 */
public final class BrowserAdapter implements Adapter {

    /** Which of the things done to a browser are steps. */
    public static final Setting STEPS = Setting.oneOf(
            "verbale.browser.steps",
            "actions",
            List.of("off", "actions", "everything"),
            "what is done to a watched browser and recorded as steps: `off`, `actions` (navigation, clicks, typing, waiting,"
                    + " windows), `everything` (also what the test reads)");

    /** Which of a page's requests are exchanges. */
    public static final Setting EXCHANGES = Setting.oneOf(
            "verbale.browser.exchanges",
            "fetch",
            List.of("off", "fetch", "all"),
            "what a browser asks of its server and is recorded as exchanges: `off`, `fetch` (what the page's scripts fetch),"
                    + " `all`");

    /** Whether an image is kept after each action. */
    public static final Setting FRAMES = Setting.onOff(
            "verbale.browser.frames",
            false,
            "`true` keeps a small image after each recorded action that changed what is to be seen");

    /** Whether a failure's screenshot is of the whole page. */
    public static final Setting FULL_PAGE = Setting.onOff(
            "verbale.browser.full-page",
            false,
            "`true` takes the screenshot of a failure of the whole page, where the browser can");

    /** Whether a browser that closes is captured. */
    public static final Setting CAPTURE_ON_CLOSE = Setting.onOff(
            "verbale.browser.capture-on-close",
            true,
            "`false` captures nothing of a browser that closes before it is known whether its test failed");

    /** How many seconds the evidence of a browser may take. */
    public static final Setting TIME_LIMIT = Setting.positive(
            "verbale.browser.time-limit",
            5,
            3,
            "the longest that a failing test waits for a browser's evidence, in seconds");

    /** As {@link java.util.ServiceLoader} makes it. */
    public BrowserAdapter() {}

    @Override
    public List<Setting> settings() {
        return List.of(STEPS, EXCHANGES, FRAMES, FULL_PAGE, CAPTURE_ON_CLOSE, TIME_LIMIT);
    }
}
