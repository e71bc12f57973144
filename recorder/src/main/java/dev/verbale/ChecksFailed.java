package dev.verbale;

import java.util.List;

/** Checks of a test that did not hold. The test went on after each, and fails with all of them at its end. */
public final class ChecksFailed extends AssertionError {

    private static final long serialVersionUID = 1;

    private final transient List<Throwable> failures;

    /**
     * @param names of the checks that failed, in order
     * @param failures what each threw, in the same order
     */
    public ChecksFailed(List<String> names, List<Throwable> failures) {
        super(message(names, failures));
        this.failures = List.copyOf(failures);
        failures.forEach(this::addSuppressed);
    }

    /** What the checks threw, in order. */
    public List<Throwable> failures() {
        return failures;
    }

    private static String message(List<String> names, List<Throwable> failures) {
        var text = new StringBuilder(names.size() == 1 ? "1 check failed:" : names.size() + " checks failed:");
        for (int i = 0; i < names.size(); i++)
            text.append("\n  ")
                    .append(names.get(i))
                    .append(": ")
                    .append(failures.get(i).getMessage());
        return text.toString();
    }
}
