package sample;

import dev.verbale.Verbale;
import org.testng.TestNG;
import org.testng.annotations.Test;

/** A test that runs TestNG itself. */
public class InnerSample {

    @Test
    public void runsTestNG() {
        var inner = new TestNG(false);
        inner.setTestClasses(new Class<?>[] {InnerSubject.class});
        inner.setVerbose(0);
        inner.run();
        Verbale.log("inner status " + inner.getStatus());
    }
}
