package dev.verbale.internal;

import dev.verbale.event.PaperKept;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;

/** Texts that would make a journal slow to read: they go to a file of their own, and their beginning stays. */
final class LongText {

    private static final int LONGEST = 8_000;
    private static final int BEGINNING = 2_000;

    private LongText() {}

    static String shown(FileRecorder recorder, ScopeNode scope, String text) {
        if (text.length() <= LONGEST) return text;
        try {
            var content = new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
            recorder.keep(scope, "whole text", PaperKept.ATTACHMENT, content, "text/plain", 0, 0);
            return text.substring(0, BEGINNING) + " ... (" + text.length()
                    + " characters; all of them are in the paper before this line)";
        } catch (IOException noFile) {
            return text; // then the journal has to take it
        }
    }
}
