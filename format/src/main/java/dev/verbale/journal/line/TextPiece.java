package dev.verbale.journal.line;

import org.jspecify.annotations.Nullable;

/**
 * A part of a long text.
 *
 * @param id by which later lines of the journal mean it; 0 where none does
 * @param text what it is; null where an earlier line has it under {@code id}
 */
record TextPiece(int id, @Nullable String text) {}
