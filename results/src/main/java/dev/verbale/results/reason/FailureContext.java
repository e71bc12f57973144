package dev.verbale.results.reason;

import dev.verbale.event.Failure;
import dev.verbale.results.Entry;
import dev.verbale.results.OwnFrames;
import dev.verbale.results.TestResult;
import dev.verbale.results.reason.ThrownChain.Thrown;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Something that failed, and all that a rule may look at to say why.
 *
 * @param test the test that failed; null of a failure outside tests, such as the set-up of a class
 * @param className the class that it failed in, where that is known
 * @param chain what was thrown, with its causes
 * @param decisive the one of them that says most
 * @param browser what the browser said meanwhile, read once for all rules
 * @param known frames that are the suite's own
 */
record FailureContext(
        @Nullable TestResult test,
        @Nullable String className,
        Failure failure,
        ThrownChain chain,
        Thrown decisive,
        BrowserFindings browser,
        OwnFrames known) {

    static FailureContext of(TestResult test, Failure failure, OwnFrames known) {
        ThrownChain chain = ThrownChain.of(failure);
        BrowserFindings browser = BrowserFindings.in(test.entries());
        return new FailureContext(test, test.className(), failure, chain, chain.decisive(), browser, known);
    }

    static FailureContext outside(@Nullable String className, Failure failure, OwnFrames known) {
        ThrownChain chain = ThrownChain.of(failure);
        return new FailureContext(null, className, failure, chain, chain.decisive(), BrowserFindings.NONE, known);
    }

    /** Of one of the failures that this one gathers, in the same test. */
    FailureContext part(Failure gathered) {
        ThrownChain of = ThrownChain.of(gathered);
        return new FailureContext(test, className, gathered, of, of.decisive(), browser, known);
    }

    /** The decisive message; empty where there is none. */
    String message() {
        String message = decisive.message();
        return message == null ? "" : message;
    }

    List<Entry> entries() {
        return test == null ? List.of() : test.entries();
    }
}
