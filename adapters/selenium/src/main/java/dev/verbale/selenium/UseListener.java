package dev.verbale.selenium;

import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import java.lang.reflect.Method;
import org.jspecify.annotations.Nullable;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.support.events.WebDriverListener;

/** Notices which test uses the driver. Public because Selenium calls it by reflection; its package is not exported. */
public final class UseListener implements WebDriverListener {

    private final BrowserEvidence evidence;
    private volatile @Nullable Scope lastUsedIn;

    UseListener(BrowserEvidence evidence) {
        this.evidence = evidence;
    }

    @Override
    public void beforeAnyCall(Object target, Method method, Object[] args) {
        Recorder recorder = Recorder.current();
        Scope here = recorder.here();
        if (here == lastUsedIn || here.id() == recorder.run().id()) return; // not every test's browser from then on
        lastUsedIn = here;
        recorder.announce(evidence);
    }

    @Override
    public void beforeQuit(WebDriver driver) {
        evidence.browserCloses();
    }
}
