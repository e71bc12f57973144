/**
 * One line of a journal: how an event becomes JSON and comes back. Each kind of event, and each object inside one, has one
 * codec, which is the one place that knows its fields: their names, their types, what they say, how they are written and read,
 * and samples. The published schema and the tables in {@code docs/format.md} are made from them.
 *
 * <p>Not for adapters or readers: they use {@link dev.verbale.journal.JournalWriter} and
 * {@link dev.verbale.journal.JournalReader}. No parameter or result is null unless marked. Codecs are safe from any thread;
 * encoders belong to one.
 */
@NullMarked
package dev.verbale.journal.line;

import org.jspecify.annotations.NullMarked;
