package dev.verbale.engine.attachment;

import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.text.Pieces;
import dev.verbale.engine.text.Shortener;
import dev.verbale.engine.text.Texts;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** Texts that would make a journal slow to read: they go to a file of their own, and their beginning stays. */
public final class LongTexts {

    private static final int BEGINNING = 2_000;

    private final Attachments attachments;
    private final RunJournal journal;
    private final Shortener shortener;

    public LongTexts(Attachments attachments, RunJournal journal, Shortener shortener) {
        this.attachments = attachments;
        this.journal = journal;
        this.shortener = shortener;
    }

    /** A short text as it is, of a long one the beginning and where the rest is. */
    public String shown(ScopeNode scope, @Nullable String text) {
        String given = Texts.text(text);
        return given.length() <= Texts.LONGEST ? given : shown(scope, new Pieces().add(given));
    }

    /** What is shown of a text in pieces. */
    public String shown(ScopeNode scope, Pieces text) {
        return shown(scope, "whole text", text, Texts.LONGEST);
    }

    /**
     * @param name of the attachment that holds the whole
     * @param longest that stands in the journal, in characters
     */
    public String shown(ScopeNode scope, String name, Pieces text, int longest) {
        if (text.length() <= longest) return text.beginning(longest);
        String kept = shortener.beginning(
                text.beginning((int) Math.min(Integer.MAX_VALUE - 8, shortener.seen(BEGINNING))), BEGINNING);
        try {
            attachments.keep(new Attached(scope, name, AttachmentKind.ATTACHMENT), text.utf8(), "text/plain", 0, 0);
            return kept + " ... (" + text.length() + " characters; all of them are in the attachment '" + name + "')";
        } catch (IOException noFile) {
            journal.missed("attachment", 1);
            journal.problems().add("keeping a long text: " + noFile);
            return kept + " ... (" + text.length() + " characters; the rest could not be kept)";
        }
    }
}
