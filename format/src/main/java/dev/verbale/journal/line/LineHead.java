package dev.verbale.journal.line;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import tools.jackson.core.SerializableString;

/**
 * The two fields with which each line begins, as far as they are known before it is written: {@code event":"log","at}. To the
 * generator they are one name that needs no escapes, and one copy of bytes. All of it is ASCII.
 */
final class LineHead implements SerializableString {

    private final String text;
    private final byte[] bytes;

    LineHead(String word) {
        this.text = EventCodec.EVENT + "\":\"" + word + "\",\"" + EventCodec.AT;
        this.bytes = text.getBytes(StandardCharsets.US_ASCII);
    }

    @Override
    public String getValue() {
        return text;
    }

    @Override
    public int charLength() {
        return text.length();
    }

    @Override
    public char[] asQuotedChars() {
        return text.toCharArray();
    }

    @Override
    public byte[] asUnquotedUTF8() {
        return bytes;
    }

    @Override
    public byte[] asQuotedUTF8() {
        return bytes;
    }

    @Override
    public int appendQuotedUTF8(byte[] buffer, int offset) {
        if (bytes.length > buffer.length - offset) return -1; // as the generator is told that there is no room
        System.arraycopy(bytes, 0, buffer, offset, bytes.length);
        return bytes.length;
    }

    @Override
    public int appendUnquotedUTF8(byte[] buffer, int offset) {
        return appendQuotedUTF8(buffer, offset);
    }

    @Override
    public int appendQuoted(char[] buffer, int offset) {
        if (text.length() > buffer.length - offset) return -1;
        text.getChars(0, text.length(), buffer, offset);
        return text.length();
    }

    @Override
    public int appendUnquoted(char[] buffer, int offset) {
        return appendQuoted(buffer, offset);
    }

    @Override
    public int writeQuotedUTF8(OutputStream out) throws IOException {
        out.write(bytes);
        return bytes.length;
    }

    @Override
    public int writeUnquotedUTF8(OutputStream out) throws IOException {
        return writeQuotedUTF8(out);
    }

    @Override
    public int putQuotedUTF8(ByteBuffer buffer) {
        if (bytes.length > buffer.remaining()) return -1;
        buffer.put(bytes);
        return bytes.length;
    }

    @Override
    public int putUnquotedUTF8(ByteBuffer buffer) {
        return putQuotedUTF8(buffer);
    }
}
