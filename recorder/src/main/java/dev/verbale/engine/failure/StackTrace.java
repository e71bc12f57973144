package dev.verbale.engine.failure;

import dev.verbale.engine.guard.UserCode;
import dev.verbale.engine.text.Shortener;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Stack traces in the form in which the JVM prints them, bounded, and whatever the throwables do when they are asked. What
 * the journal holds already is named and not written again.
 *
 * @see Throwable#printStackTrace()
 */
final class StackTrace {

    private static final int LONGEST = 200_000;
    private static final int LONGEST_HEAD = 4_000;
    private static final int MAX_THROWABLES = 50;

    private final UserCode userCode;
    private final Shortener shortener;
    private final Predicate<Throwable> isWritten;
    private final StringBuilder text = new StringBuilder();
    private final Set<Throwable> seen = Collections.newSetFromMap(new IdentityHashMap<>());

    private StackTrace(UserCode userCode, Shortener shortener, Predicate<Throwable> isWritten) {
        this.userCode = userCode;
        this.shortener = shortener;
        this.isWritten = isWritten;
    }

    /**
     * @param isWritten whether a throwable below this one stands in the journal already
     */
    public static String of(Throwable thrown, UserCode userCode, Shortener shortener, Predicate<Throwable> isWritten) {
        var trace = new StackTrace(userCode, shortener, isWritten);
        trace.print(new Part(thrown, "", "", new StackTraceElement[0]));
        return trace.text.toString();
    }

    /** One throwable, to be printed below the frames of the one around it. */
    private record Part(Throwable thrown, String indent, String caption, StackTraceElement[] around) {}

    /** With a list of what is left to print, not by recursion: causes may be as many as somebody likes. */
    private void print(Part first) {
        List<Part> left = new ArrayList<>(List.of(first));
        while (!left.isEmpty()) {
            Part part = left.remove(left.size() - 1);
            if (text.length() > LONGEST || seen.size() > MAX_THROWABLES) {
                text.append("... (more is left out)\n");
                return;
            }
            left.addAll(printed(part));
        }
    }

    /** What comes below it, the last first. */
    private List<Part> printed(Part part) {
        Throwable thrown = part.thrown();
        text.append(part.indent()).append(part.caption());
        String head = shortener.cut(userCode.text(thrown), LONGEST_HEAD);
        if (!seen.add(thrown)) {
            text.append("[CIRCULAR REFERENCE: ").append(head).append("]\n");
            return List.of();
        }
        text.append(head).append('\n');
        if (!part.caption().isEmpty() && isWritten.test(thrown)) {
            text.append(part.indent()).append("\t(its frames stand where it was recorded first)\n");
            return List.of();
        }
        StackTraceElement[] frames = frames(part);
        List<Part> below = new ArrayList<>();
        Throwable cause = userCode.cause(thrown);
        if (cause != null) below.add(new Part(cause, part.indent(), "Caused by: ", frames));
        Throwable[] suppressed = thrown.getSuppressed(); // final: the only one that no class can spoil
        for (int i = suppressed.length - 1; i >= 0; i--)
            below.add(new Part(suppressed[i], part.indent() + "\t", "Suppressed: ", frames));
        return below;
    }

    private StackTraceElement[] frames(Part part) {
        StackTraceElement @Nullable [] frames = userCode.frames(part.thrown());
        if (frames == null) {
            text.append(part.indent()).append("\t(it does not say where it was thrown)\n");
            return new StackTraceElement[0];
        }
        int own = frames.length;
        for (int around = part.around().length; own > 0 && around > 0; own--, around--)
            if (!String.valueOf(frames[own - 1]).equals(String.valueOf(part.around()[around - 1]))) break;
        for (int i = 0; i < own && text.length() <= LONGEST; i++)
            text.append(part.indent()).append("\tat ").append(frames[i]).append('\n');
        if (own < frames.length)
            text.append(part.indent())
                    .append("\t... ")
                    .append(frames.length - own)
                    .append(" more\n");
        return frames;
    }
}
