package dev.verbale.testng;

import java.util.ArrayList;
import java.util.List;

/** What TestNG's own soft assertions throw at their end: one error, with the message of each that failed in its own. */
final class SoftFailures {

    private static final String SOFT = "org.testng.asserts.SoftAssert";
    private static final String FIRST = "\n\t";
    private static final String NEXT = ",\n\t";
    private static final int MAX = 200;

    private SoftFailures() {}

    /** One for each assertion that failed; none where {@code thrown} is something else. Where each was made, nobody says. */
    static List<AssertionError> of(Throwable thrown) {
        List<AssertionError> all = new ArrayList<>();
        String message = thrown.getMessage();
        StackTraceElement[] frames = thrown.getStackTrace();
        if (thrown.getClass() != AssertionError.class || message == null || frames.length == 0) return all;
        int begin = message.indexOf(FIRST);
        if (!frames[0].getClassName().equals(SOFT) || begin < 0) return all;
        for (String one : message.substring(begin + FIRST.length()).split(NEXT, MAX)) {
            var failure = new AssertionError(one, thrown); // so that it is known as part of that
            failure.setStackTrace(frames);
            all.add(failure);
        }
        return all;
    }

    /** What was asserted, where its author said that; its values else. */
    static String name(AssertionError failure) {
        String message = String.valueOf(failure.getMessage());
        int values = message.indexOf(" expected [");
        return values > 0 ? message.substring(0, values) : message;
    }
}
