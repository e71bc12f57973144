package dev.verbale.selenium;

import dev.verbale.Scope;
import dev.verbale.browser.BrowserSession;
import dev.verbale.browser.BrowserSessions;
import dev.verbale.browser.BrowserSnapshot;
import dev.verbale.spi.AdapterRecorder;
import java.net.URI;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.openqa.selenium.HasCapabilities;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebDriverException;

/** A driver's browser over the tests that use it. */
final class DriverSession extends BrowserSession implements WatchedScreen {

    private static final Duration IMAGE_LIMIT = Duration.ofSeconds(2);
    private static final long PAUSE_TO_IMAGE = 9;
    private static final BrowserSessions<WebDriver, DriverSession> SESSIONS = new BrowserSessions<>(DriverSession::new);

    private final BrowserInspector inspector;
    private volatile @Nullable TestFollower follower;
    private volatile long nextImage = Long.MIN_VALUE;

    private DriverSession(WebDriver driver) {
        super(AdapterRecorder.current(), "browser");
        inspector = inspector(driver);
    }

    /** The one of {@code driver}: whoever asks first makes it. */
    static DriverSession of(WebDriver driver) {
        return SESSIONS.of(driver);
    }

    private BrowserInspector inspector(WebDriver driver) {
        Object address = null;
        if (recorder.isRecording() && driver instanceof HasCapabilities able)
            address = able.getCapabilities().getCapability("se:cdp");
        if (address == null) return new DriverInspector(driver);
        try {
            ChromiumInspector chromium = ChromiumInspector.open(this, URI.create(address.toString()));
            chromium.currentWindow(driver.getWindowHandle());
            return chromium;
        } catch (RuntimeException closedToUs) {
            return new DriverInspector(driver); // as behind a proxy that lets only the driver through
        }
    }

    @Nullable
    ChromiumInspector chromium() {
        return inspector instanceof ChromiumInspector chromium ? chromium : null;
    }

    /**
     * Something was done to the browser, in the thread of its test: of one that sends no frames, this is their moment. A driver
     * does one thing at a time, so that images may cost a test no more than a tenth of its time.
     */
    void acted() {
        if (inspector instanceof ChromiumInspector || isClosed() || !screen.isRecording()) return;
        long from = System.nanoTime();
        if (from < nextImage) return;
        byte[] image = image();
        long now = System.nanoTime();
        nextImage = now + PAUSE_TO_IMAGE * (now - from);
        if (image.length > 0) screen.frame(image);
    }

    byte[] image() {
        return inspector.image(IMAGE_LIMIT);
    }

    /** {@code one} is called in the thread of a test that used the browser when it fails, and before it ends. */
    void followedBy(TestFollower one) {
        follower = one;
    }

    @Override
    protected void failing(Throwable failure) {
        TestFollower watching = follower;
        if (watching != null) watching.fails(failure);
    }

    @Override
    protected void testEnds() {
        TestFollower watching = follower;
        if (watching != null) watching.testEnds();
    }

    @Override
    protected BrowserSnapshot snapshot(Duration limit, boolean wholePage) {
        return inspector.snapshot(limit, wholePage);
    }

    @Override
    protected void belongTo(@Nullable Scope scope) {
        ChromiumInspector chromium = chromium();
        if (chromium != null) chromium.belongTo(scope);
    }

    @Override
    protected void forgetBefore(long at) {
        ChromiumInspector chromium = chromium();
        if (chromium != null) chromium.forgetBefore(at);
    }

    @Override
    public void isOver() {
        super.isOver();
        ChromiumInspector chromium = chromium();
        if (chromium != null) chromium.close();
    }

    /** Whether nothing is left once the window is closed that the driver is in. */
    boolean isLastWindow() {
        try {
            return inspector.isLastWindow();
        } catch (WebDriverException unknown) {
            return false;
        }
    }

    @Override
    public AdapterRecorder recorder() {
        return recorder;
    }

    @Override
    public void shows(byte[] image) {
        screen.frame(image);
    }

    @Override
    public boolean isFrameWanted() {
        return screen.isRecording();
    }

    @Override
    public boolean knowsItsWindow() {
        return follower != null;
    }

    @Override
    public Duration timeLimit() {
        return limit();
    }

    void currentWindow(WebDriver driver) {
        ChromiumInspector chromium = chromium();
        if (chromium == null) return;
        try {
            chromium.currentWindow(driver.getWindowHandle());
        } catch (WebDriverException closing) {
            // then there is no current one
        }
    }
}
