package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * What the lines before add up to. Written by the journal's writer every some hundred lines and behind {@link JournalEnded}, and
 * compared by whoever reads the journal: a line that was changed, cut out or put in since is found. It finds accidents; who wants to
 * hide a change can write another sum, and only a seal with a key finds that.
 *
 * @param bytes how many bytes there are from the beginning of the line of this kind before, or of the journal, to this line; 0 where
 *     {@code crc32} is null
 * @param crc32 the CRC-32 of those bytes, as in RFC 1952 (gzip), section 8; null where a write failed in between, so that nobody
 *     knows what is in the file
 * @since 0.2.0
 */
public record ChecksumWritten(long at, long bytes, @Nullable Long crc32) implements Event {}
