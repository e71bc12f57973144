package dev.verbale.selenium;

import dev.verbale.browser.Look;
import dev.verbale.evidence.Evidence;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import dev.verbale.video.Camera;
import java.net.URI;
import java.time.Duration;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.WeakHashMap;
import org.jspecify.annotations.Nullable;
import org.openqa.selenium.HasCapabilities;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebDriverException;

/** What a browser gives when something fails: what it shows, or what it showed last where it is closed by then. */
final class BrowserEvidence implements EvidenceSource {

    private static final List<String> ON_OFF = List.of("true", "false");
    private static final Duration LAST_LOOK = Duration.ofSeconds(2);
    private static final Map<WebDriver, BrowserEvidence> OF_DRIVERS = Collections.synchronizedMap(new WeakHashMap<>());

    private final Recorder recorder;
    private final Camera camera;
    private final Eyes eyes;
    private final Duration most;
    private final boolean fullPage;
    private final boolean takesLastLook;
    private volatile @Nullable Actions actions;
    private volatile boolean closed;
    private volatile @Nullable Look lastLook;
    private volatile int lastLookOf;
    private volatile int lastOwner;

    private BrowserEvidence(WebDriver driver) {
        recorder = Recorder.current();
        camera = new Camera(recorder);
        most = Duration.ofSeconds(seconds());
        fullPage = recorder.setting("verbale.browser.fullPage", "false", ON_OFF).equals("true");
        takesLastLook =
                recorder.setting("verbale.browser.lastLook", "true", ON_OFF).equals("true");
        eyes = eyes(driver);
    }

    /** The one of {@code driver}: whoever asks first makes it. */
    static BrowserEvidence of(WebDriver driver) {
        return OF_DRIVERS.computeIfAbsent(driver, BrowserEvidence::new);
    }

    private long seconds() {
        String value = recorder.setting("verbale.browser.seconds", "5", List.of());
        if (value.matches("[1-9]\\d{0,2}")) return Long.parseLong(value);
        recorder.note("verbale.browser.seconds: '" + value + "' is no number from 1 to 999. Using 5.");
        return 5;
    }

    private Eyes eyes(WebDriver driver) {
        Object address = null;
        if (recorder.isRecording() && driver instanceof HasCapabilities able)
            address = able.getCapabilities().getCapability("se:cdp");
        if (address == null) return new DriverEyes(driver);
        try {
            ChromiumEyes chromium = ChromiumEyes.open(recorder, camera, URI.create(address.toString()), most);
            chromium.currentWindow(driver.getWindowHandle());
            return chromium;
        } catch (RuntimeException closedToUs) {
            return new DriverEyes(driver); // as behind a proxy that lets only the driver through
        }
    }

    @Nullable
    ChromiumEyes chromium() {
        return eyes instanceof ChromiumEyes chromium ? chromium : null;
    }

    /** The test of this thread uses the browser. */
    void used() {
        Scope owner = recorder.owner();
        if (owner.id() == recorder.run().id()) return; // not every test's browser from then on
        ChromiumEyes chromium = chromium();
        if (chromium != null) chromium.belongTo(recorder.here());
        if (owner.id() == lastOwner) return;
        lastOwner = owner.id();
        if (chromium != null) chromium.forgetBefore(recorder.now());
        recorder.announce(this);
        camera.use(owner);
    }

    /** Something was done to the browser, in the thread of its test: of one that sends no pictures, this is their moment. */
    void acted() {
        if (eyes instanceof ChromiumEyes || closed || !camera.films()) return;
        byte[] picture = eyes.picture(LAST_LOOK);
        if (picture.length > 0) camera.picture(picture);
    }

    byte[] picture() {
        return eyes.picture(LAST_LOOK);
    }

    /** The browser, or a window of it, closes now: it may turn out too late that its test has failed. */
    void closes(boolean wholly) {
        if (closed) return;
        if (takesLastLook && recorder.owner().id() == lastOwner) {
            lastLook = eyes.look(LAST_LOOK.compareTo(most) < 0 ? LAST_LOOK : most, fullPage);
            lastLookOf = lastOwner;
        }
        if (!wholly) return;
        closed = true;
        camera.stop();
        ChromiumEyes chromium = chromium();
        if (chromium != null) chromium.close();
    }

    @Override
    public String name() {
        return "browser";
    }

    @Override
    public void take(Evidence evidence) {
        try {
            Actions watching = actions;
            if (watching != null) watching.fails(evidence.failure());
            if (closed) takeLastLook(evidence);
            else eyes.look(most, fullPage).writeTo(evidence);
        } finally {
            camera.failed(evidence);
        }
    }

    private void takeLastLook(Evidence evidence) {
        Look look = lastLook;
        if (look == null || lastLookOf != recorder.owner().id()) return; // it closed in good order, in another test
        evidence.note("The browser was closed before this failure; what follows is what it showed last.");
        look.writeTo(evidence);
    }

    /** {@code actions} are told in the thread of a test that used the browser when it fails, and before it ends. */
    void tell(Actions watching) {
        actions = watching;
    }

    @Override
    public void ended(Scope scope) {
        Actions watching = actions;
        if (watching != null) watching.testEnds();
        camera.ended(scope);
        if (lastLookOf == scope.id()) lastLook = null;
        if (lastOwner != scope.id()) return;
        lastOwner = 0;
        ChromiumEyes chromium = chromium();
        if (chromium != null) chromium.belongTo(null);
    }

    void currentWindow(WebDriver driver) {
        ChromiumEyes chromium = chromium();
        if (chromium == null) return;
        try {
            chromium.currentWindow(driver.getWindowHandle());
        } catch (WebDriverException closing) {
            // then there is no current one
        }
    }
}
