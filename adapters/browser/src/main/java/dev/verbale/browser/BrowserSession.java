package dev.verbale.browser;

import dev.verbale.Evidence;
import dev.verbale.EvidenceSource;
import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.video.ScreenRecorder;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/**
 * A browser, or a page of one, over the tests that use it one after another. What it shows is captured when one of them fails;
 * where it closes before that is known, what it showed last is kept until the test has ended.
 *
 * <p>One for each browser or page, see {@link BrowserSessions}. {@link #used} and {@link #closes} are called in the thread of the
 * test; evidence is asked for there too.
 *
 * @since 0.2.0
 */
public abstract class BrowserSession implements EvidenceSource {

    private static final Duration CLOSING_LIMIT = Duration.ofSeconds(2);

    protected final AdapterRecorder recorder;
    protected final ScreenRecorder screen;
    private final String word;
    private final boolean capturesOnClose;
    private final boolean fullPage;
    private final Duration limit;
    private volatile boolean closed;
    private volatile @Nullable BrowserSnapshot atClose;
    private volatile int atCloseOf;
    private volatile int lastTest;

    /** @param word what it is, in a sentence: {@code browser} or {@code page} */
    protected BrowserSession(AdapterRecorder recorder, String word) {
        this.recorder = recorder;
        this.word = word;
        screen = new ScreenRecorder(recorder);
        capturesOnClose = recorder.isOn(BrowserAdapter.CAPTURE_ON_CLOSE);
        fullPage = recorder.isOn(BrowserAdapter.FULL_PAGE);
        limit = Duration.ofSeconds(Long.parseLong(recorder.setting(BrowserAdapter.TIME_LIMIT)));
    }

    /** What can be had within {@code limit}; it says itself what cannot. */
    protected abstract BrowserSnapshot snapshot(Duration limit, boolean wholePage);

    /** What it asks of its server from now on belongs to {@code scope}; to nobody where that is null. */
    protected abstract void belongTo(@Nullable Scope scope);

    /** What its console and network said before {@code at} belongs to another test. */
    protected abstract void forgetBefore(long at);

    /** A test fails with {@code failure}, before anything is captured. */
    protected void failing(Throwable failure) {}

    /** A test that used it ends. */
    protected void testEnds() {}

    /** The longest that its evidence may take. */
    protected final Duration limit() {
        return limit;
    }

    /** Whether it was closed. */
    protected final boolean isClosed() {
        return closed;
    }

    /** The test of this thread uses it. */
    public void used() {
        Scope test = recorder.currentTest();
        if (test.id() == recorder.run().id()) return; // not every test's browser from then on
        belongTo(recorder.currentScope());
        if (test.id() == lastTest) return;
        lastTest = test.id();
        forgetBefore(recorder.now());
        recorder.register(this);
        screen.use(test);
    }

    /** It closes now. */
    public void closes() {
        keepsLastSight();
        isOver();
    }

    /** It closes now, unless it is kept from it: it may turn out too late that its test has failed. */
    public final void keepsLastSight() {
        if (closed || !capturesOnClose || recorder.currentTest().id() != lastTest) return;
        atClose = snapshot(CLOSING_LIMIT.compareTo(limit) < 0 ? CLOSING_LIMIT : limit, fullPage);
        atCloseOf = lastTest;
    }

    /** Nothing of it is left. */
    public void isOver() {
        if (closed) return;
        closed = true;
        screen.stop();
    }

    @Override
    public String name() {
        return word;
    }

    @Override
    public void capture(Evidence evidence) {
        try {
            failing(evidence.failure());
            if (closed) captureAtClose(evidence);
            else snapshot(limit, fullPage).writeTo(evidence);
        } finally {
            screen.failed(evidence);
        }
    }

    private void captureAtClose(Evidence evidence) {
        BrowserSnapshot last = atClose;
        if (last == null || atCloseOf != recorder.currentTest().id())
            return; // it closed in good order, in another test
        evidence.log("The " + word + " was closed before this failure; what follows is what it showed last.");
        last.writeTo(evidence);
    }

    @Override
    public void ended(Scope scope) {
        testEnds();
        screen.ended(scope);
        if (atCloseOf == scope.id()) atClose = null;
        if (lastTest != scope.id()) return;
        lastTest = 0;
        belongTo(null);
    }
}
