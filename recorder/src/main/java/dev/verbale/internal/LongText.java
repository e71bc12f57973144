package dev.verbale.internal;

import dev.verbale.event.PaperKept;
import java.io.IOException;

/** Texts that would make a journal slow to read: they go to a file of their own, and their beginning stays. */
final class LongText {

    private static final int BEGINNING = 2_000;

    /** Of a note, a value, a message. */
    static final int LONGEST = 8_000;

    private LongText() {}

    /** {@code text}, or its beginning and where the rest is. */
    static String shown(FileRecorder recorder, ScopeNode scope, Pieces text) {
        return shown(recorder, scope, "whole text", text, LONGEST);
    }

    /**
     * @param name of the paper that holds the whole
     * @param longest that stands in the journal, in characters
     */
    static String shown(FileRecorder recorder, ScopeNode scope, String name, Pieces text, int longest) {
        if (text.length() <= longest) return text.beginning(longest);
        Shortening shortening = recorder.shortening;
        String kept = shortening.beginning(
                text.beginning((int) Math.min(Integer.MAX_VALUE - 8, shortening.seen(BEGINNING))), BEGINNING);
        try {
            recorder.keep(scope, name, PaperKept.ATTACHMENT, text.utf8(), "text/plain", 0, 0);
            return kept + " ... (" + text.length() + " characters; all of them are in the paper '" + name + "')";
        } catch (IOException noFile) {
            recorder.minutes.missed("paper", 1);
            recorder.minutes.problems.add("keeping a long text: " + noFile);
            return kept + " ... (" + text.length() + " characters; the rest could not be kept)";
        }
    }
}
