package dev.verbale.results.reason;

import dev.verbale.results.OwnFrames;
import dev.verbale.results.reason.ThrownChain.Frame;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The suite's own code in a failure: what it went through on its way to the test.
 *
 * @param test the frame of the test's own method, or of the outermost own code; null where no own code is to be seen
 * @param helper the nearest own frame that is not the test method; null where there is none
 */
record OwnCode(@Nullable Frame test, @Nullable Frame helper) {

    /**
     * @param className the test's; null where it has none
     * @param methodName the test's; null where it has none
     */
    static OwnCode of(List<Frame> frames, @Nullable String className, @Nullable String methodName, OwnFrames known) {
        List<Frame> own = own(frames, className, known);
        if (own.isEmpty()) return new OwnCode(null, null);
        Frame test = own.get(own.size() - 1);
        for (Frame frame : own) if (isTest(frame, className, methodName)) test = frame;
        // Where the nearest is the test's own lambda, what called it only went around: a retry, a timer.
        Frame nearest = own.get(0);
        boolean isOfTest = nearest.outerClass().equals(test.outerClass())
                && nearest.writtenMethod().equals(test.writtenMethod());
        return new OwnCode(test, isOfTest ? null : nearest);
    }

    /** The names of methods and classes that it went through. */
    static Set<String> names(List<Frame> frames, OwnFrames known) {
        Set<String> names = new LinkedHashSet<>();
        for (Frame frame : frames) {
            if (!known.isOwn(frame.className() + ".")) continue;
            names.add(frame.writtenMethod());
            names.add(frame.outerClass().substring(frame.outerClass().lastIndexOf('.') + 1));
        }
        return names;
    }

    private static boolean isTest(Frame frame, @Nullable String className, @Nullable String methodName) {
        return frame.className().equals(className) && frame.writtenMethod().equals(methodName);
    }

    /** What lies in the packages beside the test's class says more surely whose it is than a list of libraries. */
    private static List<Frame> own(List<Frame> frames, @Nullable String className, OwnFrames known) {
        List<Frame> all = frames.stream()
                .filter(frame -> known.isOwn(frame.className() + "."))
                .toList();
        String root = root(
                className != null || all.isEmpty()
                        ? className
                        : all.get(all.size() - 1).className());
        if (root == null) return all;
        List<Frame> beside =
                all.stream().filter(frame -> frame.className().startsWith(root)).toList();
        return beside.isEmpty() ? all : beside;
    }

    /** The first two parts of its package, such as {@code dev.orto.}; null where it has fewer. */
    private static @Nullable String root(@Nullable String className) {
        if (className == null) return null;
        int first = className.indexOf('.');
        int second = className.indexOf('.', first + 1);
        return first < 0 || second < 0 ? null : className.substring(0, second + 1);
    }
}
