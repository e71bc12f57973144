package dev.verbale.results.reason;

import dev.verbale.event.Failure;
import dev.verbale.results.Entry;
import dev.verbale.results.FailureParts;
import dev.verbale.results.FailureTitle;
import dev.verbale.results.LastMoment;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.reason.ThrownChain.Frame;
import dev.verbale.results.reason.ThrownChain.Thrown;
import dev.verbale.vocabulary.Outcome;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What makes a failure one with others. The rules are asked in this order, and the first that has an answer decides:
 *
 * <ol>
 *   <li>nobody listened: protocol and host;
 *   <li>the exchange behind it: method, host and path, status, the error in the body;
 *   <li>something in a page, with an error of a script that the console holds: that error;
 *   <li>an element of a page: type and locator;
 *   <li>what was thrown: type, masked message and the nearest own frame that is not the test method. What any assertion could
 *       say, with no such frame, is a reason of its own test.
 * </ol>
 *
 * @param key the same for two failures of one reason, in any run
 * @param open the key as it would be without what was recorded beside the failure (exchanges, browser findings): by it the
 *     same failure is found again in a run that recorded none of that. Null where the key has nothing of the kind
 * @param title as a person would say it
 * @param evidence the recorded line that explains it; null where the title says all
 * @param difference what it found changed; null where it is no such assertion
 * @param wording of what the suite's own code says in one method; null of what is something else
 */
record Fingerprint(
        String key,
        @Nullable String open,
        String title,
        @Nullable String evidence,
        @Nullable Difference difference,
        @Nullable Wording wording) {

    private Fingerprint(String key, @Nullable String open, String title, @Nullable String evidence) {
        this(key, open, title, evidence, null, null);
    }

    private static final int LONGEST_EVIDENCE = 300;
    private static final int MAX_PARTS = 50;

    /** Of a test of which no failure is recorded: that it never ended is one reason, whatever test it is, for a killed JVM takes many. */
    static Fingerprint withoutFailure(TestResult test) {
        return withoutFailure(
                test.outcome(), test.reason(), LastMoment.of(test.entries()).sentence());
    }

    static Fingerprint withoutFailure(Outcome outcome, @Nullable String reason, String lastMoment) {
        if (outcome.equals(Outcome.UNFINISHED))
            return new Fingerprint(
                    "unfinished",
                    null,
                    "It was begun and never ended",
                    lastMoment.isEmpty() ? null : Texts.cut(lastMoment, LONGEST_EVIDENCE));
        if (reason == null || reason.isBlank())
            return new Fingerprint("no failure|" + outcome.word(), null, "No failure was recorded", null);
        String masked = MaskedMessage.of(reason, false, List.of(), Set.of()).text();
        return new Fingerprint(
                "no failure|" + outcome.word() + "|" + masked, null, Texts.cut(reason, LONGEST_EVIDENCE), null);
    }

    /** Types that are thrown for everything. */
    private static final Set<String> OF_ANYTHING = Set.of(
            "java.lang.RuntimeException",
            "java.lang.Exception",
            "java.lang.Error",
            "java.lang.IllegalStateException",
            "java.lang.IllegalArgumentException",
            "java.lang.NullPointerException",
            "java.lang.IndexOutOfBoundsException",
            "java.lang.ArrayIndexOutOfBoundsException",
            "java.lang.StringIndexOutOfBoundsException",
            "java.lang.ClassCastException",
            "java.lang.UnsupportedOperationException",
            "java.util.NoSuchElementException",
            "java.util.concurrent.TimeoutException",
            "java.io.IOException");

    /** A condition without a name. */
    private static final Pattern LAMBDA = Pattern.compile("\\(a lambda\\)|Lambda expression in |\\$\\$Lambda");

    /** Has an answer, or leaves it to the next one. */
    private interface Rule {
        @Nullable
        Fingerprint of(FailureContext failed);
    }

    private static final List<Rule> RULES = List.of(
            Fingerprint::ofRefused,
            Fingerprint::ofExchange,
            Fingerprint::ofScript,
            Fingerprint::ofElement,
            Fingerprint::ofThrownOutside,
            Fingerprint::ofThrown);

    static Fingerprint of(FailureContext failed) {
        Fingerprint ofParts = ofGathered(failed);
        if (ofParts != null) return ofParts;
        for (Rule rule : RULES) {
            Fingerprint found = rule.of(failed);
            if (found != null) return found;
        }
        throw new IllegalStateException(
                "no rule has an answer for " + failed.failure().type());
    }

    /** Of a failure of many: what its parts are, each once. That the same check failed once more is no other reason. */
    private static @Nullable Fingerprint ofGathered(FailureContext failed) {
        Map<String, Fingerprint> parts = new TreeMap<>();
        List<Failure> gathered = FailureParts.of(failed.failure());
        Fingerprint first = null;
        for (Failure part : gathered.subList(0, Math.min(MAX_PARTS, gathered.size()))) {
            Fingerprint one = of(failed.part(part));
            if (first == null) first = one;
            parts.putIfAbsent(one.key(), one);
        }
        if (first == null || parts.size() == 1) return first;
        int more = parts.size() - 1;
        return new Fingerprint(
                "several|" + String.join("|", parts.keySet()),
                null,
                first.title() + (more == 1 ? " (and another)" : " (and " + more + " others)"),
                first.evidence());
    }

    private static @Nullable Fingerprint ofRefused(FailureContext failed) {
        RefusedConnection refused = RefusedConnection.of(failed.chain());
        return refused == null ? null : new Fingerprint(refused.key(), null, refused.title(), line(failed.decisive()));
    }

    private static @Nullable Fingerprint ofExchange(FailureContext failed) {
        if (failed.test() == null) return null;
        ExchangeBehind behind = ExchangeBehind.of(failed.test(), failed.failure(), failed.browser());
        if (behind == null) return null;
        String key = "exchange|" + behind.endpoint();
        return new Fingerprint(
                key + "|" + behind.error(),
                key,
                behind.title(),
                behind.line().isEmpty() ? FailureTitle.of(failed.failure()) : behind.line());
    }

    /** Of what a script should have drawn, and did not because it broke. */
    private static @Nullable Fingerprint ofScript(FailureContext failed) {
        String type = failed.decisive().type();
        List<String> errors = failed.browser().scriptErrors();
        if (errors.isEmpty() || !Locator.isOfBrowser(type)) return null;
        Locator locator = Locator.of(type, failed.message());
        String first = Texts.cut(
                errors.get(0).lines().findFirst().orElse(errors.get(0)).strip(), LONGEST_EVIDENCE);
        return new Fingerprint(
                "script|" + MaskedMessage.of(first, false, List.of(), Set.of()).text(),
                null,
                "Script error: " + first.replaceFirst("^Uncaught (?:\\(in promise\\) )?", ""),
                locator == null ? FailureTitle.of(failed.failure()) : locator.title(type, failed.message()));
    }

    private static @Nullable Fingerprint ofElement(FailureContext failed) {
        String type = failed.decisive().type();
        Locator locator = Locator.of(type, failed.message());
        if (locator == null) return null;
        return new Fingerprint(
                "element|" + (locator.isThere() ? type : "missing") + "|" + locator.text(),
                null,
                locator.title(type, failed.message()),
                null);
    }

    private static @Nullable Fingerprint ofThrownOutside(FailureContext failed) {
        if (failed.test() != null) return null;
        OwnCode own = OwnCode.of(failed.chain().frames(), failed.className(), null, failed.known());
        String frame = own.test() == null ? "" : own.test().text();
        return new Fingerprint(
                "thrown|" + failed.decisive().type() + "|"
                        + MaskedMessage.of(failed.message(), false, List.of(), Set.of())
                                .text() + "|" + frame,
                null,
                FailureTitle.of(failed.failure()),
                null);
    }

    /** Of what the suite's own code threw, or asserted without a name. */
    private static @Nullable Wording wording(
            String kind, Thrown decisive, OwnCode own, boolean isAssertion, MaskedMessage masked) {
        Frame origin = own.helper() == null ? own.test() : own.helper();
        if (origin == null) return null;
        boolean isItsOwn = isAssertion
                ? own.helper() != null && masked.description() == null
                : !decisive.frames().isEmpty()
                        && origin.equals(decisive.frames().get(0));
        return isItsOwn ? Wording.of(kind + " in " + origin.text(), masked) : null;
    }

    private static boolean isOfJdk(Thrown thrown) {
        return !thrown.frames().isEmpty() && thrown.frames().get(0).className().startsWith("java.");
    }

    /** Thrown around whatever happened: "gave up after 3 tries". */
    private static boolean isAround(String type) {
        return type.equals("java.lang.RuntimeException")
                || type.equals("java.lang.Exception")
                || type.equals("java.lang.IllegalStateException");
    }

    private static String cause(Thrown last) {
        String message = last.message() == null ? "" : last.message();
        return last.type() + ": "
                + MaskedMessage.of(message, false, List.of(), Set.of()).text();
    }

    private static @Nullable Fingerprint ofThrown(FailureContext failed) {
        TestResult test = failed.test();
        if (test == null) return null;
        ThrownChain chain = failed.chain();
        Thrown decisive = failed.decisive();
        String message = failed.message();
        boolean isAssertion = test.outcome().equals(Outcome.FAILED) || chain.holdsAssertion();
        OwnCode own = OwnCode.of(decisive.frames(), test.className(), test.methodName(), failed.known());
        MaskedMessage masked = MaskedMessage.of(
                isOfJdk(decisive) ? MaskedMessage.ofJdk(message) : message,
                isAssertion,
                ownNames(test, own),
                OwnCode.names(chain.frames(), failed.known()));
        String helper = own.helper() == null ? "" : own.helper().text();
        boolean says = !masked.isStock() || !isAssertion && saysByItsType(decisive);
        String kind = decisive.isAssertion() ? "assertion" : decisive.type();
        if (isAround(kind) && !chain.last().equals(decisive)) kind += " by " + cause(chain.last());
        String key = "thrown|" + kind + "|" + masked.about(isAssertion && !helper.isEmpty()) + "|" + helper;
        if (!says && helper.isEmpty())
            key += "|" + (own.test() == null ? test.key() : own.test().text());
        String title = FailureTitle.of(failed.failure());
        if (decisive.message() != null && !message.equals(failed.failure().message())) title = decisive.message();
        if (LAMBDA.matcher(message).find()) title = "Waited in vain for a condition in " + where(test, own);
        else if (!says) title = where(test, own) + ": " + title;
        return new Fingerprint(
                key,
                null,
                title,
                evidence(test.entries()),
                Difference.of(test, failed.failure(), failed.browser(), masked),
                says ? wording(kind, decisive, own, isAssertion, masked) : null);
    }

    /** A "404 Not Found" of an HTTP client is one of them in any test, as is a file that is there already. */
    private static boolean saysByItsType(Thrown thrown) {
        return thrown.message() != null && !thrown.message().isBlank() && !OF_ANYTHING.contains(thrown.type());
    }

    private static List<String> ownNames(TestResult test, OwnCode own) {
        List<String> names = new ArrayList<>();
        if (test.methodName() != null) names.add(test.methodName());
        if (own.test() != null && !names.contains(own.test().writtenMethod()))
            names.add(own.test().writtenMethod());
        return names;
    }

    /** For what says nothing itself: the step that it happened in, or the method, or the test. */
    private static String where(TestResult test, OwnCode own) {
        String step = failingStep(test.entries());
        if (step != null) return step;
        if (own.helper() == null) return test.name();
        String type = own.helper().className();
        return type.substring(type.lastIndexOf('.') + 1) + "." + own.helper().writtenMethod();
    }

    private static @Nullable String failingStep(List<Entry> entries) {
        for (Entry entry : entries) {
            if (!(entry instanceof Entry.StepEntry step)) continue;
            if (!step.outcome().equals(Outcome.FAILED) && !step.outcome().equals(Outcome.ERRORED)) continue;
            String inner = failingStep(step.entries());
            return inner != null ? inner : step.name();
        }
        return null;
    }

    /** The last line that a logger called an error. */
    private static @Nullable String evidence(List<Entry> entries) {
        String last = null;
        for (Entry entry : entries) {
            if (entry instanceof Entry.LogEntry log && "error".equals(log.level()))
                last = Texts.cut(log.text().lines().findFirst().orElse("").strip(), LONGEST_EVIDENCE);
            String inner = evidence(Entry.inside(entry));
            if (inner != null) last = inner;
        }
        return last == null || last.isBlank() ? null : last;
    }

    private static String line(Thrown thrown) {
        return Texts.cut(thrown.type() + (thrown.message() == null ? "" : ": " + thrown.message()), LONGEST_EVIDENCE);
    }
}
